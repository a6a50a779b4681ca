package brightlantern.app.picture;

import java.io.IOException;
import java.io.UncheckedIOException;
import java.util.Base64;
import java.util.List;
import org.springframework.stereotype.Component;

/** Pictures of a job as its reports show them, with their marks. */
@Component
public class ReportPictures {
    private final Attachments attachments;
    private final Pictures pictures;

    ReportPictures(Attachments attachments, Pictures pictures) {
        this.attachments = attachments;
        this.pictures = pictures;
    }

    /**
     * A picture.
     *
     * @param source an address, or the picture itself where the report must hold all
     * @param about what it shows
     */
    public record Shown(String source, String about, String note) {}

    /** Those that stand in the report, fetched by the page. */
    public List<Shown> linked(long jobId) {
        return reported(jobId).stream()
                .map(
                        h ->
                                shown(
                                        h,
                                        "/jobs/%d/pictures/%d/content?marked=true"
                                                .formatted(jobId, h.id())))
                .toList();
    }

    /** Those that stand in the report, held by it. */
    public List<Shown> held(long jobId) {
        return reported(jobId).stream().map(h -> shown(h, held(h))).toList();
    }

    /** The same data, as an address that holds it. */
    public static String inline(String type, byte[] content) {
        return "data:" + type + ";base64," + Base64.getEncoder().encodeToString(content);
    }

    private List<Attachments.Head> reported(long jobId) {
        return attachments.of(jobId).stream().filter(h -> h.isPicture() && h.reported()).toList();
    }

    private String held(Attachments.Head head) {
        try {
            return inline(
                    head.type(), pictures.forPaper(attachments.content(head.id()), head.marks()));
        } catch (IOException torn) {
            throw new UncheckedIOException(torn);
        }
    }

    private static Shown shown(Attachments.Head head, String source) {
        return new Shown(source, head.about().isEmpty() ? head.name() : head.about(), head.note());
    }
}
