package brightlantern.app;

import java.io.IOException;
import java.io.InputStream;
import java.nio.file.Files;
import java.nio.file.Path;
import java.sql.Connection;
import java.sql.DriverManager;
import java.sql.ResultSet;
import java.sql.SQLException;
import java.sql.Statement;
import java.util.zip.ZipEntry;
import java.util.zip.ZipFile;

/** Brings a copy of the database back into an empty data folder, and looks whether it is whole. */
final class Restore {
    private static final String DATABASE = "lantern.mv.db";

    /** The only user of the database, as application.yaml names it. */
    private static final String USER = "lantern";

    private Restore() {}

    /**
     * @return how many jobs it holds
     * @throws IOException in a sentence, when there is a database already, or the copy is none; the
     *     folder is as it was then
     */
    static long into(Path data, Path copy) throws IOException {
        Path database = data.resolve(DATABASE);
        if (Files.exists(database)) {
            throw new IOException(
                    "Option --restore: "
                            + data
                            + " holds a database already; choose an empty folder with --data=DIR");
        }
        if (!Files.isReadable(copy)) {
            throw new IOException("Option --restore: there is no readable file '" + copy + "'");
        }
        try (ZipFile zip = new ZipFile(copy.toFile())) {
            ZipEntry entry = zip.getEntry(DATABASE);
            if (entry == null) {
                throw new IOException("it holds no " + DATABASE);
            }
            try (InputStream in = zip.getInputStream(entry)) {
                Files.copy(in, database);
            }
            OwnFiles.closeToOthers(data);
            return jobs(data);
        } catch (IOException | SQLException wrong) {
            Files.deleteIfExists(database);
            throw new IOException(
                    "Option --restore: '"
                            + copy
                            + "' is no copy of a database ("
                            + wrong.getMessage()
                            + ")");
        }
    }

    private static long jobs(Path data) throws SQLException {
        try (Connection db =
                        DriverManager.getConnection(
                                "jdbc:h2:file:" + data.resolve("lantern") + ";IFEXISTS=TRUE",
                                USER,
                                "");
                Statement ask = db.createStatement();
                ResultSet answer = ask.executeQuery("select count(*) from job")) {
            answer.next();
            return answer.getLong(1);
        }
    }
}
