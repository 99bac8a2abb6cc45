declare module "libheif-js/libheif-wasm/libheif-bundle.mjs" {
  interface Shown {
    data: Uint8ClampedArray<ArrayBuffer>;
    width: number;
    height: number;
  }
  interface HeifImage {
    get_width(): number;
    get_height(): number;
    display(into: Shown, done: (shown: Shown | null) => void): void;
    free(): void;
  }
  export default function libheif(): { HeifDecoder: new () => { decode(bytes: ArrayBuffer): HeifImage[] } };
}
