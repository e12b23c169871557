declare module 'js-aruco2' {
  interface Corner {
    x: number;
    y: number;
  }
  interface Marker {
    id: number;
    corners: Corner[];
    hammingDistance: number;
  }
  const aruco: {
    readonly AR: {
      Dictionary: new (name: string) => { codeList: string[] };
      Detector: new (config: { dictionaryName: string; maxHammingDistance: number }) => {
        detectImage(width: number, height: number, data: Uint8ClampedArray): Marker[];
      };
    };
  };
  export default aruco;
}
