declare module 'piexifjs' {
  type Values = Readonly<Record<number, string | number | readonly [number, number]>>;
  interface Piexif {
    /** Exif as the bytes of a JPEG's application segment, a character each. */
    dump(blocks: { readonly '0th': Values; readonly Exif: Values }): string;
    readonly TAGS: { readonly Exif: Record<number, { readonly name: string; readonly type: string }> };
    readonly ImageIFD: Readonly<
      Record<'Make' | 'Model' | 'Software' | 'Orientation' | 'DateTime' | 'ImageDescription', number>
    >;
    readonly ExifIFD: Readonly<
      Record<
        | 'DateTimeOriginal'
        | 'FNumber'
        | 'ExposureTime'
        | 'ISOSpeedRatings'
        | 'FocalLength'
        | 'LensModel'
        | 'BodySerialNumber'
        | 'ImageUniqueID'
        | 'SubjectDistance'
        | 'SubSecTimeOriginal'
        | 'FocalPlaneXResolution'
        | 'FocalPlaneYResolution'
        | 'FocalPlaneResolutionUnit',
        number
      >
    >;
  }
  const piexif: Piexif;
  export default piexif;
}
