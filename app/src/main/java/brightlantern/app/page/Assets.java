package brightlantern.app.page;

import jakarta.servlet.http.HttpServletRequest;
import java.io.ByteArrayOutputStream;
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
import org.springframework.core.io.ByteArrayResource;
import org.springframework.core.io.Resource;
import org.springframework.core.io.support.PathMatchingResourcePatternResolver;
import org.springframework.http.CacheControl;
import org.springframework.stereotype.Component;
import org.springframework.web.servlet.config.annotation.ResourceHandlerRegistry;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;
import org.springframework.web.servlet.resource.ResourceResolver;
import org.springframework.web.servlet.resource.ResourceResolverChain;

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

    /** A browser asks for each file by itself, on every page. */
    private static final String SHEET = "all.css";

    private static final CacheControl FOR_GOOD =
            CacheControl.maxAge(Duration.ofDays(365)).cachePublic().immutable();

    private final String prefix;
    private final String[] places;
    private final byte[] styles;

    /**
     * @param places where styles, scripts and fonts lie
     * @throws IOException when they cannot be read
     */
    Assets(@Value("${spring.web.resources.static-locations:classpath:/static/}") String[] places)
            throws IOException {
        this.places = places;
        this.prefix = "/assets/" + fingerprint(places);
        this.styles = styles(places);
    }

    private static byte[] styles(String[] places) throws IOException {
        PathMatchingResourcePatternResolver finder = new PathMatchingResourcePatternResolver();
        ByteArrayOutputStream all = new ByteArrayOutputStream();
        for (String style : STYLES) {
            for (String place : places) {
                Resource file = finder.getResource(place + "css/" + style + ".css");
                if (file.exists()) {
                    all.writeBytes(file.getContentAsByteArray());
                    break;
                }
            }
        }
        return all.toByteArray();
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

    /** Path of all style sheets in one, in their order. */
    public String sheet() {
        return prefix + "/css/" + SHEET;
    }

    @Override
    public void addResourceHandlers(ResourceHandlerRegistry registry) {
        registry.addResourceHandler(prefix + "/**")
                .addResourceLocations(places)
                .setCacheControl(FOR_GOOD);
        registry.addResourceHandler(sheet())
                .setCacheControl(FOR_GOOD)
                .resourceChain(true)
                .addResolver(new OneSheet(styles));
        // a library's path holds its version
        registry.addResourceHandler("/webjars/**")
                .addResourceLocations("classpath:/META-INF/resources/webjars/")
                .setCacheControl(FOR_GOOD);
    }

    /** Answers with what is in memory, whatever is asked for. */
    private record OneSheet(byte[] styles) implements ResourceResolver {
        @Override
        public Resource resolveResource(
                HttpServletRequest request,
                String path,
                List<? extends Resource> locations,
                ResourceResolverChain chain) {
            return new ByteArrayResource(styles) {
                @Override
                public String getFilename() {
                    return SHEET;
                }

                @Override
                public long lastModified() {
                    // its path holds its fingerprint
                    return 0;
                }
            };
        }

        @Override
        public String resolveUrlPath(
                String path, List<? extends Resource> locations, ResourceResolverChain chain) {
            return path;
        }
    }
}
