package brightlantern.core.code;

import java.io.BufferedReader;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.util.Collections;
import java.util.LinkedHashMap;
import java.util.Map;

/**
 * Tables of standardised numbers and our words for them, shipped beside the class that reads them.
 */
public final class WordTable {
    private WordTable() {}

    /**
     * @param file lines of a key, a comma, and the rest
     * @return in the file's order
     */
    public static Map<String, String> load(Class<?> beside, String file) {
        Map<String, String> table = new LinkedHashMap<>();
        try (InputStream in = beside.getResourceAsStream(file);
                BufferedReader lines =
                        new BufferedReader(new InputStreamReader(in, StandardCharsets.UTF_8))) {
            for (String line = lines.readLine(); line != null; line = lines.readLine()) {
                int comma = line.indexOf(',');
                table.put(line.substring(0, comma), line.substring(comma + 1));
            }
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
        return Collections.unmodifiableMap(table);
    }
}
