package brightlantern.app.picture;

import brightlantern.core.attachment.Content;
import brightlantern.core.attachment.FileKind;
import brightlantern.core.attachment.Mark;
import com.drew.imaging.ImageMetadataReader;
import com.drew.imaging.ImageProcessingException;
import com.drew.metadata.Directory;
import com.drew.metadata.Metadata;
import com.drew.metadata.exif.ExifSubIFDDirectory;
import com.drew.metadata.exif.GpsDirectory;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Path2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Iterator;
import java.util.List;
import java.util.Locale;
import java.util.Optional;
import javax.imageio.ImageIO;
import javax.imageio.ImageReadParam;
import javax.imageio.ImageReader;
import javax.imageio.stream.ImageInputStream;
import net.coobird.thumbnailator.Thumbnails;
import org.springframework.stereotype.Component;

/** Scales pictures, turns them upright, takes what the camera tells out of them, draws marks. */
@Component
class Pictures {
    /** Longest side of what is kept, in pixels. */
    static final int KEPT = 2000;

    /** Longest side on paper. */
    private static final int PAPER = 1000;

    /** Longest side of what lists show. */
    static final int SMALL = 320;

    /** A small file can claim any size; more than this would fill the memory. */
    private static final long MOST_PIXELS = 60_000_000L;

    /** Of so many pixels one is looked at to see whether a file is whole. */
    private static final int FEW = 16;

    private static final double QUALITY = 0.85;

    /** Width of a mark's line as a share of the longer side. */
    private static final double LINE = 0.006;

    /** Head of an arrow, as a multiple of its line, and half its angle. */
    private static final double HEAD = 5;

    private static final double HEAD_ANGLE = Math.toRadians(25);

    private static final Color MARK = new Color(0xF2, 0x3A, 0x2B);

    /**
     * @param withCamera whether time and place of the camera are kept
     * @throws IllegalArgumentException says what is wrong with it
     */
    synchronized Scaled scaled(Content content, byte[] bytes, boolean withCamera) {
        if (content.kind() != FileKind.PICTURE) {
            return new Scaled(content.type(), 0, 0, bytes, new byte[0], "", "");
        }
        try {
            check(bytes);
            byte[] kept = jpeg(bytes, KEPT);
            BufferedImage image = ImageIO.read(new ByteArrayInputStream(kept));
            Optional<Metadata> told = withCamera ? told(bytes) : Optional.empty();
            return new Scaled(
                    "image/jpeg",
                    image.getWidth(),
                    image.getHeight(),
                    kept,
                    jpeg(kept, SMALL),
                    told.map(Pictures::taken).orElse(""),
                    told.map(Pictures::place).orElse(""));
        } catch (IOException | RuntimeException torn) {
            if (torn instanceof IllegalArgumentException wrong && wrong.getMessage() != null) {
                throw wrong;
            }
            throw new IllegalArgumentException("it begins like a picture and cannot be read", torn);
        }
    }

    private static void check(byte[] bytes) throws IOException {
        try (ImageInputStream in =
                ImageIO.createImageInputStream(new ByteArrayInputStream(bytes))) {
            Iterator<ImageReader> readers = ImageIO.getImageReaders(in);
            if (!readers.hasNext()) {
                throw new IllegalArgumentException("it begins like a picture and cannot be read");
            }
            ImageReader reader = readers.next();
            reader.setInput(in);
            long pixels = (long) reader.getWidth(0) * reader.getHeight(0);
            if (pixels > MOST_PIXELS) {
                throw new IllegalArgumentException(
                        "it has %d million pixels; at most %d are taken"
                                .formatted(pixels / 1_000_000, MOST_PIXELS / 1_000_000));
            }
            // one that was torn is read to its end with grey, and a warning
            List<String> warnings = new ArrayList<>();
            reader.addIIOReadWarningListener((source, warning) -> warnings.add(warning));
            ImageReadParam few = reader.getDefaultReadParam();
            few.setSourceSubsampling(FEW, FEW, 0, 0);
            reader.read(0, few);
            reader.dispose();
            if (warnings.stream().anyMatch(w -> w.toLowerCase(Locale.ROOT).contains("premature"))) {
                throw new IllegalArgumentException("it ends too early; it was not sent whole");
            }
        }
    }

    private static byte[] jpeg(byte[] bytes, int side) throws IOException {
        BufferedImage image =
                onWhite(Thumbnails.of(new ByteArrayInputStream(bytes)).scale(1).asBufferedImage());
        double scale = Math.min(1, side / (double) Math.max(image.getWidth(), image.getHeight()));
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        Thumbnails.of(image)
                .scale(scale)
                .imageType(BufferedImage.TYPE_INT_RGB)
                .outputFormat("jpg")
                .outputQuality(QUALITY)
                .toOutputStream(out);
        return out.toByteArray();
    }

    /** A JPEG has no holes: what shows through them is paper. */
    private static BufferedImage onWhite(BufferedImage image) {
        if (!image.getColorModel().hasAlpha()) {
            return image;
        }
        BufferedImage whole =
                new BufferedImage(image.getWidth(), image.getHeight(), BufferedImage.TYPE_INT_RGB);
        Graphics2D g = whole.createGraphics();
        g.drawImage(image, 0, 0, Color.WHITE, null);
        g.dispose();
        return whole;
    }

    private static Optional<Metadata> told(byte[] bytes) throws IOException {
        try {
            return Optional.of(ImageMetadataReader.readMetadata(new ByteArrayInputStream(bytes)));
        } catch (ImageProcessingException none) {
            return Optional.empty();
        }
    }

    private static String taken(Metadata told) {
        Directory exif = told.getFirstDirectoryOfType(ExifSubIFDDirectory.class);
        return Optional.ofNullable(exif)
                .map(e -> e.getString(ExifSubIFDDirectory.TAG_DATETIME_ORIGINAL))
                .orElse("");
    }

    private static String place(Metadata told) {
        return Optional.ofNullable(told.getFirstDirectoryOfType(GpsDirectory.class))
                .map(GpsDirectory::getGeoLocation)
                .map(
                        at ->
                                String.format(
                                        Locale.ROOT,
                                        "%.5f, %.5f",
                                        at.getLatitude(),
                                        at.getLongitude()))
                .orElse("");
    }

    /**
     * A picture with its marks drawn into it.
     *
     * @param jpeg as it is kept
     */
    byte[] marked(byte[] jpeg, List<Mark> marks) throws IOException {
        if (marks.isEmpty()) {
            return jpeg;
        }
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(jpeg));
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        float line = (float) (LINE * Math.max(image.getWidth(), image.getHeight()));
        for (Mark mark : marks) {
            // light beneath, so that it shows on what is dark or red as well
            for (float wide : new float[] {2 * line, line}) {
                g.setColor(wide > line ? Color.WHITE : MARK);
                g.setStroke(new BasicStroke(wide, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
                draw(g, mark, image.getWidth(), image.getHeight(), HEAD * line);
            }
        }
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, "jpg", out);
        return out.toByteArray();
    }

    /** A picture with its marks, no larger than paper can show. */
    byte[] forPaper(byte[] jpeg, List<Mark> marks) throws IOException {
        return jpeg(marked(jpeg, marks), PAPER);
    }

    private static void draw(Graphics2D g, Mark mark, int width, int height, double head) {
        double x1 = mark.x1() * width;
        double y1 = mark.y1() * height;
        double x2 = mark.x2() * width;
        double y2 = mark.y2() * height;
        if (mark.shape() == Mark.Shape.RING) {
            double r = Math.hypot(x2 - x1, y2 - y1);
            g.draw(new Ellipse2D.Double(x1 - r, y1 - r, 2 * r, 2 * r));
            return;
        }
        double back = Math.atan2(y1 - y2, x1 - x2);
        Path2D.Double arrow = new Path2D.Double();
        arrow.moveTo(x1, y1);
        arrow.lineTo(x2, y2);
        for (double side : new double[] {-HEAD_ANGLE, HEAD_ANGLE}) {
            arrow.moveTo(x2, y2);
            arrow.lineTo(x2 + head * Math.cos(back + side), y2 + head * Math.sin(back + side));
        }
        g.draw(arrow);
    }
}
