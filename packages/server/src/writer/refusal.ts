/** A request that cannot be carried out, with the status that says why (RFC 9110 §15.5); the message is for the user. */
export class WriterRefusal extends Error {
  override name = 'WriterRefusal';
  constructor(
    message: string,
    readonly status: 404 | 409 | 507 = 409,
  ) {
    super(message);
  }
}
