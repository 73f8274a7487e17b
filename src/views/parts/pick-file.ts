/** Lets a person choose a file of stations or a track from the disk. */
export function pickFile(onFile: (file: File) => void): void {
  const input = document.createElement('input');
  input.type = 'file';
  input.accept = '.csv,.tsv,.txt,.json,.geojson,.gpx,.kml';
  input.onchange = () => {
    const [file] = input.files ?? [];
    if (file) onFile(file);
  };
  input.click();
}
