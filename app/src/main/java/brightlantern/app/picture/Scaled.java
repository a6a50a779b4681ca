package brightlantern.app.picture;

/**
 * A file as it is kept: a picture scaled and written anew, so that nothing of the camera stays in
 * it but its pixels; anything else as it came.
 *
 * @param type media type
 * @param small for lists; empty for what is no picture
 * @param taken when, as the camera says; empty when that is not to be kept
 * @param place where, in degrees
 */
record Scaled(
        String type,
        int width,
        int height,
        byte[] content,
        byte[] small,
        String taken,
        String place) {}
