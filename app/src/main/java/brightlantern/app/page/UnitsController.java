package brightlantern.app.page;

import brightlantern.core.signal.Units;
import java.security.Principal;
import java.util.Map;
import org.springframework.stereotype.Controller;
import org.springframework.ui.Model;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PostMapping;
import org.springframework.web.bind.annotation.RequestParam;
import org.springframework.web.servlet.mvc.support.RedirectAttributes;

/** Everybody's own choice of units; it holds on every page. */
@Controller
class UnitsController {
    private final UnitChoices choices;

    UnitsController(UnitChoices choices) {
        this.choices = choices;
    }

    @GetMapping("/units")
    String page(Principal who, Model model) {
        model.addAttribute("quantities", Units.choices());
        model.addAttribute("chosen", choices.of(who.getName()));
        return "account/units";
    }

    @PostMapping("/units")
    String choose(Principal who, @RequestParam Map<String, String> form, RedirectAttributes flash) {
        try {
            for (String quantity : Units.choices().keySet()) {
                if (form.containsKey(quantity)) {
                    choices.choose(who.getName(), quantity, form.get(quantity));
                }
            }
            flash.addFlashAttribute("notice", "Your units hold on every page from now on.");
        } catch (IllegalArgumentException wrong) {
            flash.addFlashAttribute("error", wrong.getMessage());
        }
        return "redirect:/units";
    }
}
