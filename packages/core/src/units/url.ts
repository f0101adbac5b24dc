/** A text as one part of a URL's path (RFC 3986 §2.1); a half of a pair of UTF-16 by itself becomes the replacement character. */
export const urlPart = (text: string): string => encodeURIComponent(text.replace(/\p{Cs}/gu, '\ufffd'));
