package brightlantern.app.prove;

import brightlantern.app.page.JobPages;
import com.google.zxing.BarcodeFormat;
import com.google.zxing.WriterException;
import com.google.zxing.common.BitMatrix;
import com.google.zxing.qrcode.QRCodeWriter;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.servlet.support.ServletUriComponentsBuilder;

/** The address of a job as a picture (ISO/IEC 18004), to open it on another device. */
@Controller
class QrController {
    private final JobPages pages;

    QrController(JobPages pages) {
        this.pages = pages;
    }

    @GetMapping("/jobs/{id}/address.svg")
    ResponseEntity<String> address(@PathVariable("id") long id) throws WriterException {
        pages.job(id);
        String address =
                ServletUriComponentsBuilder.fromCurrentContextPath()
                        .path("/jobs/{id}/trace")
                        .buildAndExpand(id)
                        .toUriString();
        return ResponseEntity.ok()
                .contentType(MediaType.valueOf("image/svg+xml"))
                .cacheControl(CacheControl.noCache())
                .body(svg(new QRCodeWriter().encode(address, BarcodeFormat.QR_CODE, 0, 0)));
    }

    /** Dark on light whatever the theme: not every camera reads the reverse. */
    private static String svg(BitMatrix squares) {
        StringBuilder path = new StringBuilder();
        for (int y = 0; y < squares.getHeight(); y++) {
            for (int x = 0; x < squares.getWidth(); x++) {
                if (squares.get(x, y)) {
                    path.append("M%d %dh1v1h-1z".formatted(x, y));
                }
            }
        }
        return "<svg xmlns=\"http://www.w3.org/2000/svg\" viewBox=\"0 0 %d %d\">"
                        .formatted(squares.getWidth(), squares.getHeight())
                + "<rect width=\"100%\" height=\"100%\" fill=\"#fff\"/><path d=\""
                + path
                + "\"/></svg>";
    }
}
