/** What a text holds as JSON; undefined where it is not JSON. */
export function parsedJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return undefined;
  }
}
