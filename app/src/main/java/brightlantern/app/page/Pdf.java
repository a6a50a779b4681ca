package brightlantern.app.page;

import brightlantern.app.job.Workshops;
import com.openhtmltopdf.outputdevice.helper.BaseRendererBuilder.FontStyle;
import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.svgsupport.BatikSVGDrawer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.io.InputStream;
import java.io.UncheckedIOException;
import java.util.Base64;
import java.util.Map;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;

/** Puts a template on paper. */
@Component
public class Pdf {
    private static final String FONT = "DejaVu Sans";

    private final ITemplateEngine templates;
    private final Format format;
    private final Workshops workshops;

    Pdf(ITemplateEngine templates, Format format, Workshops workshops) {
        this.templates = templates;
        this.format = format;
        this.workshops = workshops;
    }

    /** The workshop's logo as it stands in a page; empty without one. */
    public String logo() {
        return workshops
                .logo()
                .map(l -> "data:image/jpeg;base64," + Base64.getEncoder().encodeToString(l))
                .orElse("");
    }

    /** All that a sheet says must be in the file; its letters too. */
    private static InputStream font(String name) {
        try {
            return new ClassPathResource("paper/" + name).getInputStream();
        } catch (IOException missing) {
            throw new UncheckedIOException(missing);
        }
    }

    /**
     * A template on paper, which finds the workshop and its logo beside what it is given.
     *
     * @param fileName without its ending
     * @throws IOException when the paper cannot be written
     */
    public ResponseEntity<byte[]> of(
            String template, Map<String, Object> variables, String fileName) throws IOException {
        Context context = new Context();
        context.setVariables(variables);
        context.setVariable("format", format);
        context.setVariable("workshop", workshops.get());
        context.setVariable("logo", logo());
        String html = templates.process(template, context);
        ByteArrayOutputStream pdf = new ByteArrayOutputStream();
        try (BatikSVGDrawer drawings = new BatikSVGDrawer()) {
            new PdfRendererBuilder()
                    .useFastMode()
                    .useSVGDrawer(drawings)
                    .useFont(() -> font("DejaVuSans.ttf"), FONT, 400, FontStyle.NORMAL, true)
                    .useFont(() -> font("DejaVuSans-Bold.ttf"), FONT, 700, FontStyle.NORMAL, true)
                    // tagged, so that it can be read aloud
                    .usePdfUaAccessibility(true)
                    .withHtmlContent(html, "http://127.0.0.1/")
                    .toStream(pdf)
                    .run();
        }
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header("Content-Disposition", "inline; filename=\"" + fileName + ".pdf\"")
                .body(pdf.toByteArray());
    }
}
