package brightlantern.app.demo;

import java.io.BufferedReader;
import java.io.BufferedWriter;
import java.io.IOException;
import java.io.InputStream;
import java.io.InputStreamReader;
import java.io.OutputStreamWriter;
import java.io.UncheckedIOException;
import java.nio.charset.StandardCharsets;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Blob;
import java.sql.Clob;
import java.sql.SQLException;
import java.util.Base64;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.zip.GZIPInputStream;
import java.util.zip.GZIPOutputStream;
import org.springframework.jdbc.core.JdbcTemplate;
import org.springframework.stereotype.Component;
import org.springframework.transaction.annotation.Transactional;
import tools.jackson.core.type.TypeReference;
import tools.jackson.databind.json.JsonMapper;

/**
 * Jobs that were really done against the stand-ins, kept as rows: one JSON object a line with the
 * table's name and its columns, bytes as base64. Columns that came later keep their defaults.
 */
@Component
public class DemoRecording {
    private static final List<String> TABLES =
            List.of(
                    "job",
                    "finding",
                    "sweep",
                    "take",
                    "take_chunk",
                    "take_mark",
                    "capture",
                    "capture_part",
                    "capture_mark",
                    "procedure_run",
                    "procedure_event",
                    "learned_reading",
                    "kept_map",
                    "instrument",
                    "repair",
                    "command_log",
                    "shelf_case");

    private static final List<String> WITHOUT_IDENTITY =
            List.of(
                    "take_chunk",
                    "take_mark",
                    "capture_part",
                    "procedure_event",
                    "instrument",
                    "shelf_case");

    private static final String RESOURCE = "/demo/recorded.jsonl.gz";
    private static final String BYTES = "base64:";

    private final JdbcTemplate db;
    private final JsonMapper json = JsonMapper.builder().build();

    DemoRecording(JdbcTemplate db) {
        this.db = db;
    }

    /**
     * Writes all jobs with everything that belongs to them.
     *
     * @throws IOException when the file cannot be written
     */
    public void write(Path file) throws IOException {
        Files.createDirectories(file.getParent());
        try (BufferedWriter out =
                new BufferedWriter(
                        new OutputStreamWriter(
                                new GZIPOutputStream(Files.newOutputStream(file)),
                                StandardCharsets.UTF_8))) {
            for (String table : TABLES) {
                for (Map<String, Object> row : db.queryForList("select * from " + table)) {
                    Map<String, Object> line = new LinkedHashMap<>();
                    line.put("table", table);
                    row.forEach((column, value) -> line.put(column.toLowerCase(), plain(value)));
                    out.write(json.writeValueAsString(line));
                    out.write('\n');
                }
            }
        }
    }

    private static Object plain(Object value) {
        try {
            if (value instanceof Clob clob) {
                return clob.getSubString(1, (int) clob.length());
            }
            if (value instanceof Blob blob) {
                return plain(blob.getBytes(1, (int) blob.length()));
            }
        } catch (SQLException unreadable) {
            throw new IllegalStateException("A recorded value cannot be read", unreadable);
        }
        if (value instanceof byte[] bytes) {
            return BYTES + Base64.getEncoder().encodeToString(bytes);
        }
        if (value != null && value.getClass().isArray()) {
            throw new IllegalStateException("A recorded value is " + value.getClass().getName());
        }
        return value == null || value instanceof Number || value instanceof Boolean
                ? value
                : value.toString();
    }

    /** Puts the recorded jobs into an empty database; how many rows there were. */
    @Transactional
    public int restore() {
        int rows = 0;
        try (InputStream file = DemoRecording.class.getResourceAsStream(RESOURCE)) {
            if (file == null) {
                return 0;
            }
            BufferedReader in =
                    new BufferedReader(
                            new InputStreamReader(
                                    new GZIPInputStream(file), StandardCharsets.UTF_8));
            for (String line = in.readLine(); line != null; line = in.readLine()) {
                insert(json.readValue(line, new TypeReference<LinkedHashMap<String, Object>>() {}));
                rows++;
            }
        } catch (IOException torn) {
            throw new UncheckedIOException("The recorded demo jobs cannot be read", torn);
        }
        for (String table : TABLES) {
            if (!WITHOUT_IDENTITY.contains(table)) {
                Long next =
                        db.queryForObject(
                                "select coalesce(max(id), 0) + 1 from " + table, Long.class);
                db.execute("alter table " + table + " alter column id restart with " + next);
            }
        }
        return rows;
    }

    private void insert(Map<String, Object> row) {
        String table = (String) row.remove("table");
        if (!TABLES.contains(table)) {
            throw new IllegalStateException("Recorded row of an unknown table '" + table + "'");
        }
        Object[] values =
                row.values().stream()
                        .map(
                                v ->
                                        v instanceof String text && text.startsWith(BYTES)
                                                ? Base64.getDecoder()
                                                        .decode(text.substring(BYTES.length()))
                                                : v)
                        .toArray();
        db.update(
                "insert into %s (%s) %s values (%s)"
                        .formatted(
                                table,
                                String.join(", ", row.keySet()),
                                WITHOUT_IDENTITY.contains(table) ? "" : "overriding system value",
                                String.join(", ", row.keySet().stream().map(c -> "?").toList())),
                values);
    }
}
