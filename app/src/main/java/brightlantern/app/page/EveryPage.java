package brightlantern.app.page;

import brightlantern.app.seat.DriversSeats;
import jakarta.servlet.http.Cookie;
import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpServletResponse;
import java.util.Arrays;
import java.util.Optional;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.ControllerAdvice;
import org.springframework.web.bind.annotation.ModelAttribute;
import org.springframework.web.bind.annotation.PostMapping;

/** What every page knows: who is signed in, the theme, and whether stand-ins run. */
@ControllerAdvice
class EveryPage {
    private static final String COOKIE = "theme";

    private final DriversSeats seats;

    EveryPage(DriversSeats seats) {
        this.seats = seats;
    }

    @ModelAttribute
    void fill(HttpServletRequest request, Model model) {
        model.addAttribute("theme", theme(request));
        model.addAttribute("standIns", !seats.all().isEmpty());
        model.addAttribute(
                "signedIn",
                Optional.ofNullable(request.getUserPrincipal()).map(p -> p.getName()).orElse(null));
        model.addAttribute(
                "mayWrite", request.isUserInRole("LEAD") || request.isUserInRole("ADMINISTRATOR"));
        model.addAttribute("administrator", request.isUserInRole("ADMINISTRATOR"));
    }

    static String theme(HttpServletRequest request) {
        return Optional.ofNullable(request.getCookies()).stream()
                .flatMap(Arrays::stream)
                .filter(c -> c.getName().equals(COOKIE) && c.getValue().equals("dark"))
                .map(Cookie::getValue)
                .findFirst()
                .orElse("light");
    }

    /** Switches between light and dark. */
    @Controller
    static class Theme {
        @PostMapping("/theme")
        String change(HttpServletRequest request, HttpServletResponse response) {
            Cookie cookie = new Cookie(COOKIE, theme(request).equals("dark") ? "light" : "dark");
            cookie.setPath("/");
            cookie.setMaxAge(365 * 24 * 3600);
            cookie.setHttpOnly(true);
            response.addCookie(cookie);
            String back = Optional.ofNullable(request.getHeader("Referer")).orElse("/");
            // only the path counts: a stranger's referer must not lead elsewhere
            return "redirect:" + java.net.URI.create(back).getRawPath();
        }
    }
}
