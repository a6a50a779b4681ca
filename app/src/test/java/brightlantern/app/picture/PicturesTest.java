package brightlantern.app.picture;

import static org.assertj.core.api.Assertions.assertThat;
import static org.assertj.core.api.Assertions.assertThatIllegalArgumentException;

import brightlantern.core.attachment.Content;
import brightlantern.core.attachment.Mark;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayInputStream;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.nio.ByteBuffer;
import java.util.Arrays;
import java.util.List;
import java.util.zip.CRC32;
import javax.imageio.ImageIO;
import org.junit.jupiter.api.Test;

class PicturesTest {
    private final Pictures pictures = new Pictures();

    private static byte[] drawn(int width, int height, String as) throws IOException {
        BufferedImage image = new BufferedImage(width, height, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setColor(Color.GREEN);
        g.fillRect(0, 0, width, height);
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        ImageIO.write(image, as, out);
        return out.toByteArray();
    }

    private Scaled kept(byte[] bytes) {
        return pictures.scaled(Content.of("stud", bytes), bytes, false);
    }

    @Test
    void twelveMegapixelsBecomeWhatAScreenShows() throws IOException {
        Scaled kept = kept(drawn(4000, 3000, "jpg"));
        assertThat(List.of(kept.width(), kept.height())).containsExactly(2000, 1500);
        BufferedImage small = ImageIO.read(new ByteArrayInputStream(kept.small()));
        assertThat(small.getWidth()).isEqualTo(Pictures.SMALL);
    }

    @Test
    void whatShowsThroughALogoIsPaper() throws IOException {
        ByteArrayOutputStream png = new ByteArrayOutputStream();
        ImageIO.write(new BufferedImage(40, 40, BufferedImage.TYPE_INT_ARGB), "png", png);
        BufferedImage logo =
                ImageIO.read(new ByteArrayInputStream(kept(png.toByteArray()).small()));
        assertThat(new Color(logo.getRGB(20, 20)).getRed()).isGreaterThan(250);
    }

    @Test
    void aTornOneIsRefused() throws IOException {
        byte[] whole = drawn(800, 600, "jpg");
        byte[] torn = Arrays.copyOf(whole, whole.length / 2);
        assertThatIllegalArgumentException()
                .isThrownBy(() -> kept(torn))
                .withMessageContaining("ends too early");
    }

    @Test
    void aSmallFileThatClaimsAHugePictureIsRefused() throws IOException {
        byte[] png = drawn(10, 10, "png");
        // width and height stand first in the header's chunk, and count in its check (PNG, 11.2.2)
        ByteBuffer.wrap(png).putInt(16, 60_000).putInt(20, 60_000);
        CRC32 crc = new CRC32();
        crc.update(png, 12, 17);
        ByteBuffer.wrap(png).putInt(29, (int) crc.getValue());
        assertThatIllegalArgumentException()
                .isThrownBy(() -> kept(png))
                .withMessageContaining("3600 million pixels");
    }

    @Test
    void marksAreDrawnWhereTheyWereMade() throws IOException {
        byte[] kept = kept(drawn(400, 400, "png")).content();
        byte[] marked =
                pictures.marked(kept, List.of(new Mark(Mark.Shape.RING, 0.5, 0.5, 0.75, 0.5)));
        BufferedImage image = ImageIO.read(new ByteArrayInputStream(marked));
        assertThat(new Color(image.getRGB(300, 200)).getRed()).isGreaterThan(150);
        assertThat(new Color(image.getRGB(200, 200)).getRed()).isLessThan(60);
        assertThat(pictures.marked(kept, List.of())).isEqualTo(kept);
    }
}
