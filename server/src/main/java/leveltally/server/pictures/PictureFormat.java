package leveltally.server.pictures;

/** How a picture was given. */
enum PictureFormat {
    PNG,
    SVG
}
