package brightlantern.app.picture;

import brightlantern.app.job.Cut;
import brightlantern.app.job.Shelf;
import brightlantern.core.attachment.Content;
import brightlantern.core.attachment.FileKind;
import brightlantern.core.shelf.CaseFile;
import brightlantern.core.shelf.ShelfCase;
import java.io.IOException;
import java.util.ArrayList;
import java.util.Arrays;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.Optional;
import java.util.stream.Collectors;
import org.springframework.jdbc.core.simple.JdbcClient;
import org.springframework.stereotype.Repository;
import org.springframework.transaction.annotation.Transactional;

/**
 * What was seen in solved cases: of the workshop's own the pictures of their jobs that stand in the
 * report, of those from elsewhere what came with them.
 */
@Repository
public class CasePictures {
    private static final int LONGEST_SHOWS = 400;
    private static final int LONGEST_NOTE = 2000;

    /** So many pictures of a case are given away. */
    private static final int MOST_GIVEN = 6;

    private final JdbcClient db;
    private final Shelf shelf;
    private final Attachments attachments;
    private final Pictures pictures;

    CasePictures(JdbcClient db, Shelf shelf, Attachments attachments, Pictures pictures) {
        this.db = db;
        this.shelf = shelf;
        this.attachments = attachments;
        this.pictures = pictures;
    }

    /**
     * @param href where it is to be had, with its marks
     * @param small where a small one is to be had
     */
    public record Shown(String href, String small, String shows, String note) {}

    private record Row(long of, Shown shown) {}

    /** Every case that has pictures → its pictures. */
    public Map<ShelfCase, List<Shown>> all() {
        Map<Long, List<Attachments.Head>> own = attachments.onShelf();
        Map<Long, List<Row>> others =
                db
                        .sql("select id, import_id, shows, note from shelf_picture order by id")
                        .query(
                                (rs, n) ->
                                        new Row(
                                                rs.getLong("import_id"),
                                                shown(
                                                        "/shelf/pictures/" + rs.getLong("id"),
                                                        rs.getString("shows"),
                                                        rs.getString("note"))))
                        .list()
                        .stream()
                        .collect(Collectors.groupingBy(Row::of));
        Map<ShelfCase, List<Shown>> all = new LinkedHashMap<>();
        for (ShelfCase each : shelf.all()) {
            List<Shown> its =
                    each.isOwn()
                            ? own.getOrDefault(each.jobId(), List.of()).stream()
                                    .map(CasePictures::shown)
                                    .toList()
                            : others
                                    .getOrDefault(shelf.imports().getOrDefault(each, 0L), List.of())
                                    .stream()
                                    .map(Row::shown)
                                    .toList();
            if (!its.isEmpty()) {
                all.put(each, its);
            }
        }
        return all;
    }

    private static Shown shown(String at, String shows, String note) {
        return new Shown(at, at + "/small", shows, note);
    }

    private static Shown shown(Attachments.Head head) {
        String at = "/jobs/" + head.jobId() + "/pictures/" + head.id();
        return new Shown(at + "/content?marked=true", at + "/small", head.about(), head.note());
    }

    /** Pictures of own cases for others, with their marks, no larger than paper can show. */
    public List<CaseFile.Picture> given(List<ShelfCase> own) throws IOException {
        Map<Long, List<Attachments.Head>> kept = attachments.onShelf();
        List<CaseFile.Picture> given = new ArrayList<>();
        for (int i = 0; i < own.size(); i++) {
            for (Attachments.Head head :
                    kept.getOrDefault(own.get(i).jobId(), List.of()).stream()
                            .limit(MOST_GIVEN)
                            .toList()) {
                byte[] image = pictures.forPaper(attachments.content(head.id()), head.marks());
                given.add(new CaseFile.Picture(i + 1, head.about(), head.note(), image));
            }
        }
        return given;
    }

    /**
     * Takes cases with their pictures; each picture is written anew.
     *
     * @return how many cases were new
     * @throws IllegalArgumentException says what is wrong with the file; then nothing is taken
     */
    @Transactional
    public int take(CaseFile file) {
        List<ShelfCase> cases = file.taken();
        List<Scaled> scaled = new ArrayList<>();
        for (int i = 0; i < file.pictures().size(); i++) {
            scaled.add(scaled(i + 1, file.pictures().get(i).image()));
        }
        Map<ShelfCase, Long> more = shelf.take(cases);
        for (int i = 0; i < scaled.size(); i++) {
            CaseFile.Picture picture = file.pictures().get(i);
            Long of = more.get(cases.get(picture.of() - 1));
            if (of != null) {
                add(of, picture, scaled.get(i));
            }
        }
        return more.size();
    }

    private Scaled scaled(int number, byte[] image) {
        try {
            byte[] beginning = Arrays.copyOf(image, Math.min(image.length, Content.ENOUGH_BYTES));
            Content content = Content.of("picture.jpg", beginning);
            if (content.kind() != FileKind.PICTURE) {
                throw new IllegalArgumentException("it is no picture");
            }
            return pictures.scaled(content, image, false);
        } catch (IllegalArgumentException wrong) {
            throw new IllegalArgumentException(
                    "picture " + number + ": " + wrong.getMessage(), wrong);
        }
    }

    private void add(long of, CaseFile.Picture picture, Scaled scaled) {
        db.sql(
                        "insert into shelf_picture (import_id, shows, note, content, small)"
                                + " values (?, ?, ?, ?, ?)")
                .params(
                        of,
                        Cut.to(LONGEST_SHOWS, picture.shows()),
                        Cut.to(LONGEST_NOTE, picture.note()),
                        scaled.content(),
                        scaled.small())
                .update();
    }

    /** One that came with a case from elsewhere. */
    Optional<byte[]> content(long id, boolean small) {
        return db.sql(
                        "select "
                                + (small ? "small" : "content")
                                + " from shelf_picture where id = ?")
                .param(id)
                .query((rs, n) -> rs.getBytes(1))
                .optional();
    }
}
