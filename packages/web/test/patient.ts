// Typing key by key is slow on a machine with other things to do; a test that hangs is still ended.
jest.setTimeout(30_000);
