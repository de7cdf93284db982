import sharp from "sharp";

/**
 * A picture as an icon: the whole of it in a square of `size` pixels, what is left of the square see-through. Throws
 * where the picture cannot be read.
 */
export function iconPng(picture: Buffer, size: number): Promise<Buffer> {
  return sharp(picture, { limitInputPixels: 100_000_000 })
    .autoOrient()
    .resize({ width: size, height: size, fit: "contain", background: "#0000" })
    .png()
    .toBuffer();
}
