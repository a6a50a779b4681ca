package brightlantern.app.page;

import java.time.Instant;
import java.util.List;

/** What a stage draws into the report for the file. */
public interface Drawings {
    /**
     * @param title what is to be seen
     * @param template has a fragment {@code paper} that takes the model; paper knows no styles of
     *     the pages
     */
    record Drawing(String title, String template, Object model) {}

    /**
     * @param repaired only what was found before it is drawn; after everything when nothing was
     *     repaired
     * @return empty when there is nothing that decided
     */
    List<Drawing> of(JobPages.Context context, Instant repaired);
}
