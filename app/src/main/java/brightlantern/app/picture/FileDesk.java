package brightlantern.app.picture;

import brightlantern.core.attachment.Content;
import java.io.IOException;
import java.util.Arrays;
import java.util.Optional;
import org.springframework.stereotype.Component;
import org.springframework.web.multipart.MultipartFile;

/** Looks at what was sent before anything of it is kept. */
@Component
class FileDesk {
    /** More is not taken. */
    static final int MOST_BYTES = 50 << 20;

    private final Pictures pictures;

    FileDesk(Pictures pictures) {
        this.pictures = pictures;
    }

    /** What a file is called, without where it lay. */
    static String name(MultipartFile file) {
        return Optional.ofNullable(file.getOriginalFilename())
                .map(n -> n.replaceAll(".*[/\\\\]", "").replaceAll("\\p{Cntrl}", ""))
                .filter(n -> !n.isBlank())
                .orElse("picture");
    }

    /**
     * @param camera whether time and place of the camera are kept
     * @throws IllegalArgumentException says what is wrong with it
     */
    Attachments.Brought read(MultipartFile file, boolean camera) throws IOException {
        if (file.getSize() > MOST_BYTES) {
            throw new IllegalArgumentException(
                    "it has %d MB; at most %d are taken"
                            .formatted(file.getSize() >> 20, MOST_BYTES >> 20));
        }
        String name = name(file);
        byte[] bytes = file.getBytes();
        byte[] beginning = Arrays.copyOf(bytes, Math.min(bytes.length, Content.ENOUGH_BYTES));
        Content content = Content.of(name, beginning);
        return new Attachments.Brought(name, content, pictures.scaled(content, bytes, camera));
    }
}
