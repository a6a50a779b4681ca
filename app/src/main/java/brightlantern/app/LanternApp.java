package brightlantern.app;

import brightlantern.app.demo.DemoLauncher;
import brightlantern.app.link.VehicleKinds;
import brightlantern.core.signal.Words;
import java.io.IOException;
import java.io.UncheckedIOException;
import java.net.BindException;
import java.nio.channels.FileChannel;
import java.nio.channels.FileLock;
import java.nio.channels.OverlappingFileLockException;
import java.nio.file.Files;
import java.nio.file.Path;
import java.nio.file.StandardOpenOption;
import java.util.LinkedHashMap;
import java.util.List;
import java.util.Map;
import java.util.concurrent.CompletableFuture;
import org.slf4j.LoggerFactory;
import org.springframework.boot.SpringApplication;
import org.springframework.boot.autoconfigure.SpringBootApplication;
import org.springframework.context.ApplicationContextInitializer;
import org.springframework.context.ConfigurableApplicationContext;
import org.springframework.context.support.GenericApplicationContext;
import org.springframework.scheduling.annotation.EnableScheduling;

/**
 * Starts Bright Lantern. Options: {@code --data=DIR}, {@code --port=N}, {@code --bind=ADDRESS},
 * {@code --vehicles=DIR}, {@code --find=ADDRESS,...}, {@code --workshop=NAME}, {@code --demo},
 * {@code --check}.
 */
@SpringBootApplication
@EnableScheduling
public class LanternApp {
    /** Held as long as the process lives, so that two starts on the same data cannot harm it. */
    private static FileLock lock;

    public static void main(String[] args) {
        Options options;
        try {
            options = Options.parse(List.of(args));
        } catch (IllegalArgumentException typed) {
            fail(typed.getMessage());
            return;
        }
        List<String> mistakes = options.mistakes();
        if (!mistakes.isEmpty()) {
            fail(String.join(System.lineSeparator(), mistakes));
        }
        if (options.check()) {
            check(options);
            return;
        }
        options.warning().ifPresent(System.err::println);
        Map<String, Object> settings = new LinkedHashMap<>(options.settings());
        Path data = options.data();
        // the database takes no path that depends on where it was started
        settings.put(Options.DATA, data.toString());
        System.out.println("Starting…");
        try {
            Files.createDirectories(data);
            OwnFiles.closeToOthers(data);
            lock =
                    FileChannel.open(
                                    data.resolve("in-use.lock"),
                                    StandardOpenOption.CREATE,
                                    StandardOpenOption.WRITE)
                            .tryLock();
        } catch (OverlappingFileLockException taken) {
            lock = null;
        } catch (IOException unusable) {
            fail("The data folder " + data + " cannot be used: " + unusable.getMessage());
        }
        if (lock == null) {
            fail(
                    "The data folder "
                            + data
                            + " is in use by another Bright Lantern. Stop that one, or choose another"
                            + " folder with --data=DIR.");
        }
        if (options.restore().isPresent()) {
            try {
                System.out.println(
                        "Restored: "
                                + Words.count(Restore.into(data, options.restore().get()), "job"));
            } catch (IOException wrong) {
                fail(wrong.getMessage() + ".");
            }
        }
        if (options.tls().isPresent()) {
            try {
                settings.putAll(Certificate.of(options.tls().get(), data).settings());
            } catch (IOException wrong) {
                fail(wrong.getMessage() + ".");
            }
        }
        start(settings, options);
    }

    private static void check(Options options) {
        try {
            if (!DescriptionCheck.run(options.descriptions(), System.out)) {
                System.exit(1);
            }
        } catch (IOException unreadable) {
            fail("The descriptions cannot be read: " + unreadable.getMessage());
        }
    }

    private static void start(Map<String, Object> settings, Options options) {
        try {
            // before several threads ask for a logger at once
            LoggerFactory.getILoggerFactory();
            // vehicles are read, and stand-ins live their past, while the rest starts
            CompletableFuture<VehicleKinds> kinds =
                    CompletableFuture.supplyAsync(() -> kinds(options.descriptions()));
            CompletableFuture<List<DemoLauncher.Arrived>> arrivals =
                    kinds.thenApplyAsync(
                            k ->
                                    options.demo()
                                            ? DemoLauncher.arrivals(k.library())
                                            : List.<DemoLauncher.Arrived>of());
            ConfigurableApplicationContext context =
                    run(settings, c -> c.registerBean(VehicleKinds.class, kinds::join));
            OwnFiles.closeToOthers(Path.of(String.valueOf(settings.get(Options.DATA))));
            if (options.demo()) {
                DemoLauncher.launch(context, arrivals);
            }
            System.out.println(
                    "Bright Lantern is ready at "
                            + (options.tls().isPresent() ? "https://" : "http://")
                            + settings.get(Options.ADDRESS)
                            + ":"
                            + settings.get(Options.PORT));
        } catch (IOException unusable) {
            fail("The data folder cannot be closed to others: " + unusable.getMessage());
        } catch (RuntimeException failed) {
            Throwable cause = failed;
            while (cause.getCause() != null && !(cause instanceof BindException)) {
                cause = cause.getCause();
            }
            fail("Bright Lantern could not start: " + cause.getMessage());
        }
    }

    private static VehicleKinds kinds(Path folder) {
        try {
            return VehicleKinds.read(folder);
        } catch (IOException unreadable) {
            throw new UncheckedIOException(unreadable);
        }
    }

    /**
     * Starts the application with given settings; for the launcher and for tests.
     *
     * @param setUp brings beans along, such as kinds of vehicles that were read before
     */
    @SafeVarargs
    public static ConfigurableApplicationContext run(
            Map<String, Object> settings,
            ApplicationContextInitializer<GenericApplicationContext>... setUp) {
        SpringApplication application = new SpringApplication(LanternApp.class);
        application.addInitializers(setUp);
        // as options, which stand above what application.yaml sets
        return application.run(
                settings.entrySet().stream()
                        .map(s -> "--" + s.getKey() + "=" + s.getValue())
                        .toArray(String[]::new));
    }

    private static void fail(String message) {
        System.err.println(message);
        System.exit(2);
    }
}
