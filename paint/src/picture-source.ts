/** Something that can be drawn as a picture. */
export type PictureSource = CanvasImageSource & { readonly width: number; readonly height: number };
