package brightlantern.app.picture;

import brightlantern.app.page.JobPages;
import org.springframework.http.CacheControl;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.RequestMapping;

/** Pictures of cases that came from elsewhere; each was written anew when it was taken. */
@Controller
@RequestMapping("/shelf/pictures/{picture}")
class CasePictureController {
    private final CasePictures pictures;

    CasePictureController(CasePictures pictures) {
        this.pictures = pictures;
    }

    @GetMapping
    ResponseEntity<byte[]> whole(@PathVariable("picture") long picture) {
        return image(picture, false);
    }

    @GetMapping("/small")
    ResponseEntity<byte[]> small(@PathVariable("picture") long picture) {
        return image(picture, true);
    }

    private ResponseEntity<byte[]> image(long picture, boolean small) {
        return ResponseEntity.ok()
                .contentType(MediaType.IMAGE_JPEG)
                .header("Content-Security-Policy", "sandbox; default-src 'none'")
                .cacheControl(CacheControl.noCache())
                .body(JobPages.found(pictures.content(picture, small), "picture", picture));
    }
}
