/** How files of stations are called; what they are comes from their content. */
const ENDINGS = ['csv', 'tsv', 'txt', 'xlsx', 'json', 'geojson', 'gpx', 'kml'];

/** True for a file that may hold stations, by its name. */
export const isStationFile = ({ name }: File): boolean =>
  ENDINGS.some((ending) => name.toLowerCase().endsWith(`.${ending}`));

/** Lets a person choose a file of stations or a track from the disk. */
export function pickFile(onFile: (file: File) => void): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = ENDINGS.map((ending) => `.${ending}`).join(',');
  input.onchange = () => {
    const [file] = input.files ?? [];
    if (file) onFile(file);
  };
  input.click();
}

/** The bytes of a file as the interface takes them. */
export async function base64Of(file: File): Promise<string> {
  const bytes = new Uint8Array(await file.arrayBuffer());
  let text = '';
  for (let at = 0; at < bytes.length; at += 8192)
    text += String.fromCharCode(...bytes.subarray(at, at + 8192));
  return btoa(text);
}
