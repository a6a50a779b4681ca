package brightlantern.standin;

import brightlantern.core.shelf.CaseFile;
import brightlantern.core.shelf.ShelfCase;
import java.awt.BasicStroke;
import java.awt.Color;
import java.awt.Graphics2D;
import java.awt.RenderingHints;
import java.awt.Shape;
import java.awt.geom.Arc2D;
import java.awt.geom.CubicCurve2D;
import java.awt.geom.Ellipse2D;
import java.awt.geom.Line2D;
import java.awt.geom.Path2D;
import java.awt.geom.Rectangle2D;
import java.awt.geom.RoundRectangle2D;
import java.awt.image.BufferedImage;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.ArrayList;
import java.util.List;
import java.util.Optional;
import java.util.Random;
import java.util.function.BiConsumer;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import javax.imageio.ImageIO;

/** What somebody would have photographed: drawn, since nothing was before a lens. */
final class CaseDrawings {
    private static final int WIDTH = 640;
    private static final int HEIGHT = 480;
    private static final Color PAPER = new Color(0xEC, 0xE7, 0xDC);
    private static final Color INK = new Color(0x2A, 0x2C, 0x30);
    private static final Color SHELL = new Color(0x55, 0x5B, 0x63);
    private static final Color METAL = new Color(0xB9, 0xBE, 0xC4);
    private static final Color COPPER = new Color(0xB8, 0x6B, 0x3A);
    private static final Color CRUST = new Color(0x5F, 0xA3, 0x88);
    private static final Color SOOT = new Color(0x18, 0x15, 0x13);
    private static final Color WIRE = new Color(0x3B, 0x62, 0x8F);
    private static final Pattern PIN = Pattern.compile("pin (\\d+)");

    private CaseDrawings() {}

    /** How a cause looks; the number chooses which of several like things it is. */
    private enum Look {
        CONTACT("Contact of .*corroded.*", "Green crust on the pin", CaseDrawings::contact),
        LAMP(".*burnt out", "The filament is gone", CaseDrawings::lamp),
        BURNT("(Relay|Fuse) .* burnt", "Burnt where it closes", CaseDrawings::burnt),
        WIRE(".*ire .*comes and goes", "Strands broken under the skin", CaseDrawings::wire),
        PAD(".*pads are worn.*", "Nothing left but the plate", CaseDrawings::pad),
        VALVE(".*valve of cylinder .*", "Burnt away on one side of the seat", CaseDrawings::valve);

        private final String cause;
        private final String note;
        private final BiConsumer<Graphics2D, Integer> drawing;

        Look(String cause, String note, BiConsumer<Graphics2D, Integer> drawing) {
            this.cause = cause;
            this.note = note;
            this.drawing = drawing;
        }

        static Optional<Look> of(String cause) {
            for (Look look : values()) {
                if (cause.matches(look.cause)) {
                    return Optional.of(look);
                }
            }
            return Optional.empty();
        }
    }

    /** Pictures of those whose cause can be seen. */
    static List<CaseFile.Picture> of(List<ShelfCase> cases) {
        List<CaseFile.Picture> pictures = new ArrayList<>();
        for (int i = 0; i < cases.size(); i++) {
            String cause = cases.get(i).cause();
            Optional<Look> look = Look.of(cause);
            if (look.isPresent()) {
                Matcher pin = PIN.matcher(cause);
                int number = pin.find() ? Integer.parseInt(pin.group(1)) : 1;
                pictures.add(
                        new CaseFile.Picture(
                                i + 1, cause, look.get().note, drawn(look.get().drawing, number)));
            }
        }
        return pictures;
    }

    private static byte[] drawn(BiConsumer<Graphics2D, Integer> drawing, int number) {
        BufferedImage image = new BufferedImage(WIDTH, HEIGHT, BufferedImage.TYPE_INT_RGB);
        Graphics2D g = image.createGraphics();
        g.setRenderingHint(RenderingHints.KEY_ANTIALIASING, RenderingHints.VALUE_ANTIALIAS_ON);
        g.setColor(PAPER);
        g.fillRect(0, 0, WIDTH, HEIGHT);
        g.setStroke(new BasicStroke(5, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        drawing.accept(g, number);
        g.dispose();
        ByteArrayOutputStream out = new ByteArrayOutputStream();
        try {
            ImageIO.write(image, "png", out);
        } catch (IOException full) {
            throw new UncheckedIOException(full);
        }
        return out.toByteArray();
    }

    private static void filled(Graphics2D g, Shape shape, Color color) {
        g.setColor(color);
        g.fill(shape);
        g.setColor(INK);
        g.draw(shape);
    }

    private static void spots(Graphics2D g, Color color, double x, double y, double r, int many) {
        Random random = new Random(many);
        g.setColor(color);
        for (int i = 0; i < many; i++) {
            double size = r * (0.15 + 0.35 * random.nextDouble());
            double at = 2 * Math.PI * random.nextDouble();
            double far = r * Math.sqrt(random.nextDouble());
            g.fill(
                    new Ellipse2D.Double(
                            x + far * Math.cos(at) - size / 2,
                            y + far * Math.sin(at) - size / 2,
                            size,
                            size));
        }
    }

    private static void contact(Graphics2D g, int pin) {
        filled(g, new RoundRectangle2D.Double(90, 90, 460, 300, 50, 50), SHELL);
        for (int i = 0; i < 8; i++) {
            double x = 165 + 103 * (i % 4);
            double y = i < 4 ? 180 : 300;
            filled(g, new Rectangle2D.Double(x - 36, y - 36, 72, 72), SOOT);
            filled(g, new Rectangle2D.Double(x - 14, y - 22, 28, 44), METAL);
            if (i == (pin - 1) % 8) {
                spots(g, CRUST, x, y, 34, 40);
                spots(g, COPPER, x, y, 16, 9);
            }
        }
    }

    private static void lamp(Graphics2D g, int number) {
        filled(g, new Rectangle2D.Double(270, 330, 100, 90), METAL);
        filled(g, new Ellipse2D.Double(200, 60, 240, 280), new Color(0xD3, 0xD0, 0xC4));
        spots(g, new Color(0x8A, 0x86, 0x7C), 320, 130, 70, 60);
        g.setColor(INK);
        g.draw(new Line2D.Double(295, 330, 265, 210));
        g.draw(new Line2D.Double(345, 330, 375, 210));
        g.draw(new CubicCurve2D.Double(265, 210, 275, 180, 285, 230, 300, 195));
        g.draw(new CubicCurve2D.Double(375, 210, 368, 235, 358, 190, 350, 245));
    }

    private static void burnt(Graphics2D g, int number) {
        filled(g, new Rectangle2D.Double(60, 195, 250, 50), COPPER);
        filled(g, new Rectangle2D.Double(330, 235, 250, 50), COPPER);
        filled(g, new Ellipse2D.Double(265, 225, 60, 34), METAL);
        filled(g, new Ellipse2D.Double(318, 222, 60, 34), METAL);
        spots(g, SOOT, 322, 240, 78, 90);
        spots(g, new Color(0xC9, 0x6A, 0x2B), 322, 240, 22, 8);
    }

    private static void wire(Graphics2D g, int number) {
        g.setStroke(new BasicStroke(64, BasicStroke.CAP_BUTT, BasicStroke.JOIN_ROUND));
        g.setColor(WIRE);
        g.draw(new CubicCurve2D.Double(0, 330, 120, 330, 160, 240, 240, 240));
        g.draw(new CubicCurve2D.Double(400, 240, 480, 240, 520, 150, 640, 150));
        g.setStroke(new BasicStroke(4, BasicStroke.CAP_ROUND, BasicStroke.JOIN_ROUND));
        g.setColor(COPPER);
        for (int i = 0; i < 9; i++) {
            double y = 216 + 6 * i;
            double gap = 300 + 9 * ((i * 5) % 7);
            g.draw(new Line2D.Double(240, y, gap, y + (i % 3) * 4 - 4));
            if (i != 4) {
                g.draw(new Line2D.Double(gap + 34, y - (i % 2) * 5, 400, y));
            }
        }
        spots(g, CRUST, 320, 240, 40, 14);
    }

    private static void pad(Graphics2D g, int number) {
        Path2D.Double plate = new Path2D.Double();
        plate.moveTo(80, 330);
        plate.quadTo(320, 180, 560, 330);
        plate.lineTo(560, 250);
        plate.quadTo(320, 100, 80, 250);
        plate.closePath();
        filled(g, plate, SHELL);
        g.setColor(METAL);
        for (int i = 0; i < 7; i++) {
            g.draw(new Arc2D.Double(40, 205 + 9 * i, 560, 240, 55, 70, Arc2D.OPEN));
        }
        spots(g, COPPER, 150, 275, 30, 12);
    }

    private static void valve(Graphics2D g, int number) {
        filled(g, new Ellipse2D.Double(150, 70, 340, 340), METAL);
        filled(g, new Ellipse2D.Double(200, 120, 240, 240), new Color(0xA4, 0x8F, 0x78));
        filled(g, new Ellipse2D.Double(300, 220, 40, 40), SHELL);
        g.setColor(SOOT);
        g.fill(new Arc2D.Double(150, 70, 340, 340, 20, 38, Arc2D.PIE));
        g.setColor(new Color(0xA4, 0x8F, 0x78));
        g.fill(new Ellipse2D.Double(215, 135, 210, 210));
        filled(g, new Ellipse2D.Double(300, 220, 40, 40), SHELL);
        spots(g, SOOT, 455, 140, 34, 16);
    }
}
