package brightlantern.app.page;

import brightlantern.app.job.Workshops;
import brightlantern.app.seat.DriversSeats;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.net.URI;
import java.util.Arrays;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;

/** What every page knows: who is signed in, the theme, and whether stand-ins run. */
@ControllerAdvice
class EveryPage {
    private static final String COOKIE = "theme";

    private final DriversSeats seats;
    private final Assets assets;
    private final Workshops workshops;

    EveryPage(DriversSeats seats, Assets assets, Workshops workshops) {
        this.workshops = workshops;
        this.seats = seats;
        this.assets = assets;
    }

    @ModelAttribute
    void fill(HttpServletRequest request, Model model) {
        model.addAttribute("theme", theme(request));
        model.addAttribute("assets", assets.prefix());
        model.addAttribute("sheet", assets.sheet());
        model.addAttribute("currency", workshops.get().currency());
        model.addAttribute("standIns", !seats.all().isEmpty());
        model.addAttribute(
                "signedIn",
                Optional.ofNullable(request.getUserPrincipal()).map(p -> p.getName()).orElse(null));
        model.addAttribute(
                "mayWrite", request.isUserInRole("LEAD") || request.isUserInRole("ADMINISTRATOR"));
        model.addAttribute("administrator", request.isUserInRole("ADMINISTRATOR"));
    }

    /** The theme that somebody chose, or auto for what the system prefers. */
    static String theme(HttpServletRequest request) {
        return Optional.ofNullable(request.getCookies()).stream()
                .flatMap(Arrays::stream)
                .filter(c -> c.getName().equals(COOKIE))
                .map(Cookie::getValue)
                .filter(v -> v.equals("dark") || v.equals("light"))
                .findFirst()
                .orElse("auto");
    }

    /** Switches between light and dark. */
    @Controller
    static class Theme {
        /**
         * @param seen the theme in which the page was seen
         */
        @PostMapping("/theme")
        String change(
                @RequestParam(name = "seen", defaultValue = "light") String seen,
                HttpServletRequest request,
                HttpServletResponse response) {
            Cookie cookie = new Cookie(COOKIE, seen.equals("dark") ? "light" : "dark");
            cookie.setPath("/");
            cookie.setMaxAge(365 * 24 * 3600);
            cookie.setHttpOnly(true);
            response.addCookie(cookie);
            return "redirect:" + back(request.getHeader("Referer"));
        }

        /** Path and parameters alone count: a stranger's referer must not lead elsewhere. */
        private static String back(String referer) {
            try {
                URI from = URI.create(Optional.ofNullable(referer).orElse("/"));
                String path = Optional.ofNullable(from.getRawPath()).orElse("");
                if (!path.startsWith("/") || path.startsWith("//")) {
                    return "/";
                }
                return path + Optional.ofNullable(from.getRawQuery()).map(q -> "?" + q).orElse("");
            } catch (IllegalArgumentException malformed) {
                return "/";
            }
        }
    }
}
