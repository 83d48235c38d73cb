/** The camera's own shadow, black with alpha; its place as shares of the product's box. */
export interface OwnShadowLayer {
  picture: string;
  x: number;
  y: number;
  width: number;
  height: number;
}
