/** A typed number; a comma is taken as a point, nothing typed is no number. */
export const typed = (text: string) =>
  text.trim() === '' ? NaN : Number(text.trim().replace(',', '.'));
