package org.mossbank.server.page;

import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Arrays;
import java.util.Iterator;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import org.jspecify.annotations.Nullable;

/** A picture of a page. It was drawn anew outside the sandbox: nothing but pixels is in it. */
public final class Picture {
    /** Of one that is kept; a page full of noise has more. */
    public static final int MOST_BYTES = 2 << 20;

    private static final int MOST_FOUND_BYTES = 8 << 20;
    private static final int MOST_PIXELS_A_SIDE = 4_000;

    private final PictureOfPage about;
    private final byte[] png;

    private Picture(PictureOfPage about, byte[] png) {
        this.about = about;
        this.png = png;
    }

    /**
     * Draws a picture anew.
     *
     * @param found taken for hostile
     * @return empty if it is no picture, or larger than one may be
     */
    public static Optional<Picture> drawnAnew(PictureOfPage about, byte[] found) {
        return drawnAnew(found).map(png -> new Picture(about, png));
    }

    /** Its size is read before its pixels are: a few bytes may claim to be gigabytes. */
    private static Optional<byte[]> drawnAnew(byte[] found) {
        if (found.length > MOST_FOUND_BYTES) {
            return Optional.empty();
        }
        try (ImageInputStream in = ImageIO.createImageInputStream(new ByteArrayInputStream(found))) {
            Iterator<ImageReader> readers = ImageIO.getImageReadersByFormatName("png");
            ImageReader reader = readers.next();
            try {
                reader.setInput(in, true, true);
                if (reader.getWidth(0) > MOST_PIXELS_A_SIDE || reader.getHeight(0) > MOST_PIXELS_A_SIDE) {
                    return Optional.empty();
                }
                BufferedImage image = reader.read(0);
                ByteArrayOutputStream out = new ByteArrayOutputStream();
                ImageIO.write(image, "png", out);
                return Optional.of(out.toByteArray()).filter(png -> png.length <= MOST_BYTES);
            } finally {
                reader.dispose();
            }
        } catch (IOException | RuntimeException e) {
            return Optional.empty();
        }
    }

    /** As it was kept. */
    public static Picture kept(PictureOfPage about, byte[] png) {
        return new Picture(about, png.clone());
    }

    public int bytes() {
        return png.length;
    }

    public PictureOfPage about() {
        return about;
    }

    public byte[] png() {
        return png.clone();
    }

    @Override
    public boolean equals(@Nullable Object other) {
        return other instanceof Picture p && about.equals(p.about) && Arrays.equals(png, p.png);
    }

    @Override
    public int hashCode() {
        return 31 * about.hashCode() + Arrays.hashCode(png);
    }
}
