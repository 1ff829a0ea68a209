const TYPES = {
  json: 'application/json',
  csv: 'text/csv',
  svg: 'image/svg+xml',
  txt: 'text/plain',
};

/** Lets the browser save a text as a file. */
export function saveFile(name: string, ending: keyof typeof TYPES, text: string) {
  const url = URL.createObjectURL(new Blob([text], { type: TYPES[ending] }));
  const link = document.createElement('a');
  link.href = url;
  link.download = `${name.replace(/[^\w-]+/g, '-').toLowerCase()}.${ending}`;
  link.click();
  URL.revokeObjectURL(url);
}
