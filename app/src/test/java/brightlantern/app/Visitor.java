package brightlantern.app;

import java.io.IOException;
import java.net.CookieManager;
import java.net.URI;
import java.net.URLEncoder;
import java.net.http.HttpClient;
import java.net.http.HttpRequest;
import java.net.http.HttpResponse;
import java.nio.charset.StandardCharsets;
import java.util.Map;
import java.util.concurrent.locks.LockSupport;
import java.util.regex.Matcher;
import java.util.regex.Pattern;
import java.util.stream.Collectors;

/** Reads pages and sends forms without a browser, as one signed-in person. */
final class Visitor {
    private static final Pattern TOKEN = Pattern.compile("name=\"_csrf\"[^>]*value=\"([^\"]+)\"");

    private static final long STAY_NANOS = 700_000_000;

    private final String base;
    private final CookieManager cookies = new CookieManager();
    private final HttpClient client =
            HttpClient.newBuilder()
                    .cookieHandler(cookies)
                    .followRedirects(HttpClient.Redirect.NORMAL)
                    .build();

    Visitor(String base) {
        this.base = base;
    }

    /** Its cookies as a header, for a client of another kind. */
    String cookies() {
        return cookies.getCookieStore().getCookies().stream()
                .map(c -> c.getName() + "=" + c.getValue())
                .collect(Collectors.joining("; "));
    }

    void signIn(String name, String password) throws IOException, InterruptedException {
        post("/sign-in", "/sign-in", Map.of("username", name, "password", password));
    }

    String get(String path) throws IOException, InterruptedException {
        return client.send(
                        HttpRequest.newBuilder(URI.create(base + path))
                                .header("Accept", "text/html, */*;q=0.8")
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .body();
    }

    /** As {@link #get}, for where no checked exception may go. */
    String reads(String path) {
        try {
            return get(path);
        } catch (IOException | InterruptedException broken) {
            throw new IllegalStateException(broken);
        }
    }

    /** The words of a page's own part, for the message of an assertion. */
    static String said(String page) {
        return page.substring(Math.max(0, page.indexOf("<main")))
                .replaceAll("(?s)<[^>]*>", " ")
                .replaceAll("\\s+", " ");
    }

    /** Asks for a part of a page again and again, as a browser does that has the page open. */
    Stay stays(String path) {
        Thread asking =
                new Thread(
                        () -> {
                            while (!Thread.currentThread().isInterrupted()) {
                                reads(path);
                                LockSupport.parkNanos(STAY_NANOS);
                            }
                        });
        asking.setDaemon(true);
        asking.setUncaughtExceptionHandler((thread, ended) -> {});
        asking.start();
        return asking::interrupt;
    }

    /** A page that is open until it is closed. */
    interface Stay extends AutoCloseable {
        @Override
        void close();
    }

    /** Sends a form with the token of the page that it stands on. */
    String post(String page, String path, Map<String, String> fields)
            throws IOException, InterruptedException {
        return send(token(page), path, fields);
    }

    /** The token that the forms of a page carry. */
    String token(String page) throws IOException, InterruptedException {
        String shown = get(page);
        Matcher token = TOKEN.matcher(shown);
        if (!token.find()) {
            throw new IllegalStateException("No form on " + page + ": " + shown);
        }
        return token.group(1);
    }

    String send(String token, String path, Map<String, String> fields)
            throws IOException, InterruptedException {
        StringBuilder form = new StringBuilder("_csrf=" + token);
        fields.forEach(
                (name, value) ->
                        form.append('&')
                                .append(name)
                                .append('=')
                                .append(URLEncoder.encode(value, StandardCharsets.UTF_8)));
        return client.send(
                        HttpRequest.newBuilder(URI.create(base + path))
                                .header("Accept", "text/html, */*;q=0.8")
                                .header("Content-Type", "application/x-www-form-urlencoded")
                                .POST(HttpRequest.BodyPublishers.ofString(form.toString()))
                                .build(),
                        HttpResponse.BodyHandlers.ofString())
                .body();
    }
}
