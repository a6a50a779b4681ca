package brightlantern.app.page;

import com.openhtmltopdf.pdfboxout.PdfRendererBuilder;
import com.openhtmltopdf.svgsupport.BatikSVGDrawer;
import java.io.ByteArrayOutputStream;
import java.io.IOException;
import java.util.Map;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Component;
import org.thymeleaf.ITemplateEngine;
import org.thymeleaf.context.Context;

/** Puts a template on paper. */
@Component
public class Pdf {
    private final ITemplateEngine templates;
    private final Format format;

    Pdf(ITemplateEngine templates, Format format) {
        this.templates = templates;
        this.format = format;
    }

    /**
     * @param fileName without its ending
     * @throws IOException when the paper cannot be written
     */
    public ResponseEntity<byte[]> of(
            String template, Map<String, Object> variables, String fileName) throws IOException {
        Context context = new Context();
        context.setVariables(variables);
        context.setVariable("format", format);
        String html = templates.process(template, context);
        ByteArrayOutputStream pdf = new ByteArrayOutputStream();
        new PdfRendererBuilder()
                .useFastMode()
                .useSVGDrawer(new BatikSVGDrawer())
                .withHtmlContent(html, "http://127.0.0.1/")
                .toStream(pdf)
                .run();
        return ResponseEntity.ok()
                .contentType(MediaType.APPLICATION_PDF)
                .header("Content-Disposition", "inline; filename=\"" + fileName + ".pdf\"")
                .body(pdf.toByteArray());
    }
}
