package brightlantern.app.page;

import java.io.IOException;
import java.io.InputStream;
import java.io.OutputStream;
import java.security.DigestInputStream;
import java.security.MessageDigest;
import java.security.NoSuchAlgorithmException;
import java.time.Duration;
import java.util.Arrays;
import java.util.Comparator;
import java.util.HexFormat;
import java.util.List;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.http.CacheControl;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/**
 * Styles and scripts under a path that holds their fingerprint, so that a browser keeps them for
 * good and yet never mixes those of two versions.
 */
@Component
public class Assets implements WebMvcConfigurer {
    /** In the order of the page: what comes later overrules what came before. */
    private static final List<String> STYLES =
            List.of(
                    "tokens",
                    "text",
                    "controls",
                    "head",
                    "rail",
                    "map",
                    "circuit",
                    "capture",
                    "picture",
                    "charts",
                    "sweep",
                    "watch",
                    "exercise",
                    "seat",
                    "narrow",
                    "print");

    private static final CacheControl FOR_GOOD =
            CacheControl.maxAge(Duration.ofDays(365)).cachePublic().immutable();

    private final String prefix;
    private final String[] places;

    /**
     * @param places where styles, scripts and fonts lie
     * @throws IOException when they cannot be read
     */
    Assets(@Value("${spring.web.resources.static-locations:classpath:/static/}") String[] places)
            throws IOException {
        this.places = places;
        this.prefix = "/assets/" + fingerprint(places);
    }

    private static String fingerprint(String[] places) throws IOException {
        MessageDigest digest;
        try {
            digest = MessageDigest.getInstance("SHA-256");
        } catch (NoSuchAlgorithmException missing) {
            throw new IllegalStateException("Every Java platform has SHA-256", missing);
        }
        PathMatchingResourcePatternResolver finder = new PathMatchingResourcePatternResolver();
        for (String place : places) {
            Resource[] files = finder.getResources(place + "**/*.*");
            Arrays.sort(files, Comparator.comparing(Resource::getDescription));
            for (Resource file : files) {
                try (InputStream in = new DigestInputStream(file.getInputStream(), digest)) {
                    in.transferTo(OutputStream.nullOutputStream());
                }
            }
        }
        return HexFormat.of().formatHex(digest.digest(), 0, 6);
    }

    /** Under which path styles, scripts and fonts of this version are found. */
    public String prefix() {
        return prefix;
    }

    /** Paths of all style sheets, in their order. */
    public List<String> styles() {
        return STYLES.stream().map(s -> prefix + "/css/" + s + ".css").toList();
    }

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler(prefix + "/**")
                .addResourceLocations(places)
                .setCacheControl(FOR_GOOD);
        // a library's path holds its version
        registry.addResourceHandler("/webjars/**")
                .addResourceLocations("classpath:/META-INF/resources/webjars/")
                .setCacheControl(FOR_GOOD);
    }
}
