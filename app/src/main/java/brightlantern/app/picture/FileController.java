package brightlantern.app.picture;

import brightlantern.app.page.JobPages;
import java.io.IOException;
import java.nio.charset.StandardCharsets;
import org.springframework.http.CacheControl;
import org.springframework.http.ContentDisposition;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;
import org.springframework.web.bind.annotation.RequestParam;

/**
 * Hands out what was kept. A picture was written anew by this program and is shown; anything else
 * is only given to be saved, in a sandbox of its own.
 */
@Controller
@RequestMapping("/jobs/{id}/pictures/{file}")
class FileController {
    private final Attachments attachments;
    private final Pictures pictures;

    FileController(Attachments attachments, Pictures pictures) {
        this.attachments = attachments;
        this.pictures = pictures;
    }

    @GetMapping("/content")
    ResponseEntity<byte[]> content(
            @PathVariable("id") long id,
            @PathVariable("file") long file,
            @RequestParam(name = "marked", defaultValue = "false") boolean marked)
            throws IOException {
        Attachments.Head head = JobPages.found(attachments.head(id, file), "picture", file);
        byte[] content = attachments.content(file);
        ContentDisposition.Builder way =
                head.isPicture() ? ContentDisposition.inline() : ContentDisposition.attachment();
        return ResponseEntity.ok()
                .contentType(MediaType.parseMediaType(head.type()))
                .header(
                        "Content-Disposition",
                        way.filename(head.name(), StandardCharsets.UTF_8).build().toString())
                .header("Content-Security-Policy", "sandbox; default-src 'none'")
                .cacheControl(CacheControl.noCache())
                .body(
                        marked && head.isPicture()
                                ? pictures.marked(content, head.marks())
                                : content);
    }

    @GetMapping("/small")
    ResponseEntity<byte[]> small(@PathVariable("id") long id, @PathVariable("file") long file)
            throws IOException {
        Attachments.Head head = JobPages.found(attachments.head(id, file), "picture", file);
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_JPEG)
                .cacheControl(CacheControl.noCache())
                .body(pictures.marked(attachments.small(file), head.marks()));
    }
}
