package brightlantern.app.account;

import jakarta.servlet.http.HttpServletRequest;
import jakarta.servlet.http.HttpSession;
import java.net.InetAddress;
import java.net.UnknownHostException;
import java.security.MessageDigest;
import java.security.Principal;
import java.security.SecureRandom;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.context.event.ApplicationReadyEvent;
import org.springframework.context.event.EventListener;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/**
 * Sign-in page, the first administrator with a one-time code from the console, and the list of
 * accounts.
 */
@Controller
class AccountController {
    /** After so many wrong codes a new one must be had by starting again. */
    private static final int CODE_TRIES = 10;

    private final Accounts accounts;
    private final boolean demo;
    private String code = "";
    private int wrong;

    AccountController(Accounts accounts, @Value("${lantern.demo:false}") boolean demo) {
        this.accounts = accounts;
        this.demo = demo;
    }

    @EventListener(ApplicationReadyEvent.class)
    void printCode() {
        if (!demo && accounts.isEmpty()) {
            code = "%08d".formatted(new SecureRandom().nextInt(100_000_000));
            System.out.println(
                    "No account exists yet. Open the page and make the first administrator with this code: "
                            + code);
        }
    }

    @GetMapping("/sign-in")
    String signIn(
            @RequestParam(name = "wait", required = false) Integer wait,
            HttpServletRequest request,
            Model model) {
        model.addAttribute("wait", wait);
        model.addAttribute("open", !request.isSecure() && !isHere(request.getRemoteAddr()));
        return accounts.isEmpty() ? "redirect:/first" : "account/sign-in";
    }

    /** Whether whoever asks sits at this machine; an address is no name that would be asked for. */
    private static boolean isHere(String address) {
        try {
            return InetAddress.getByName(address).isLoopbackAddress();
        } catch (UnknownHostException none) {
            return false;
        }
    }

    @GetMapping("/first")
    String first() {
        return accounts.isEmpty() ? "account/first" : "redirect:/sign-in";
    }

    @PostMapping("/first")
    synchronized String makeFirst(
            @RequestParam("code") String given,
            @RequestParam("name") String name,
            @RequestParam("display") String display,
            @RequestParam("password") String password,
            Model model) {
        if (!accounts.isEmpty()) {
            return "redirect:/sign-in";
        }
        try {
            if (code.isEmpty()
                    || wrong >= CODE_TRIES
                    || !MessageDigest.isEqual(code.getBytes(), given.trim().getBytes())) {
                wrong++;
                throw new IllegalArgumentException(
                        wrong >= CODE_TRIES
                                ? "Too many wrong codes. Start Bright Lantern again to get a new one."
                                : "Code: expected the eight digits that stand on the console.");
            }
            accounts.add(name, display, password, Accounts.Role.ADMINISTRATOR);
            code = "";
            return "redirect:/sign-in?made";
        } catch (IllegalArgumentException wrongInput) {
            model.addAttribute("error", wrongInput.getMessage());
            model.addAttribute("name", name);
            model.addAttribute("display", display);
            return "account/first";
        }
    }

    @GetMapping("/accounts")
    String list(Model model) {
        model.addAttribute("accounts", accounts.all());
        model.addAttribute("roles", Accounts.Role.values());
        return "account/accounts";
    }

    @PostMapping("/accounts")
    String add(
            @RequestParam("name") String name,
            @RequestParam("display") String display,
            @RequestParam("password") String password,
            @RequestParam("role") Accounts.Role role,
            RedirectAttributes flash) {
        try {
            accounts.add(name, display, password, role);
            flash.addFlashAttribute("notice", "Account " + name + " was made.");
        } catch (IllegalArgumentException wrongInput) {
            flash.addFlashAttribute("error", wrongInput.getMessage());
        }
        return "redirect:/accounts";
    }

    /** A one-time password for somebody who forgot theirs. */
    @PostMapping("/accounts/{id}/reset")
    String reset(@PathVariable("id") long id, RedirectAttributes flash) {
        accounts.reset(id)
                .ifPresentOrElse(
                        once -> flash.addFlashAttribute("once", once),
                        () -> flash.addFlashAttribute("error", "There is no such account."));
        return "redirect:/accounts";
    }

    @GetMapping("/account")
    String own(Principal who, Model model) {
        model.addAttribute("own", accounts.byName(who.getName()).orElseThrow());
        model.addAttribute("shortest", Accounts.SHORTEST_PASSWORD);
        return "account/own";
    }

    @PostMapping("/account")
    String change(
            @RequestParam("old") String old,
            @RequestParam("password") String password,
            @RequestParam("again") String again,
            Principal who,
            HttpSession session,
            RedirectAttributes flash) {
        try {
            if (!password.equals(again)) {
                throw new IllegalArgumentException("The new password was typed in two ways.");
            }
            accounts.change(who.getName(), old, password);
            AccountGuard.goesOn(session);
            flash.addFlashAttribute("notice", "The new password holds from now on.");
        } catch (IllegalArgumentException wrongInput) {
            flash.addFlashAttribute("error", wrongInput.getMessage());
        }
        return "redirect:/account";
    }

    @PostMapping("/accounts/{id}/enabled")
    String enable(
            @PathVariable("id") long id,
            @RequestParam("enabled") boolean enabled,
            Principal who,
            RedirectAttributes flash) {
        boolean self = accounts.byName(who.getName()).map(a -> a.id() == id).orElse(false);
        if (self) {
            flash.addFlashAttribute("error", "Nobody can shut out themselves.");
        } else {
            accounts.enable(id, enabled);
        }
        return "redirect:/accounts";
    }
}
