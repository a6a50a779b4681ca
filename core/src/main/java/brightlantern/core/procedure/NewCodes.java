package brightlantern.core.procedure;

import java.util.ArrayList;
import java.util.List;

/**
 * Codes that came since an earlier reading, told from those that were there.
 *
 * @param passes whether none of the new ones fails now
 */
record NewCodes(String says, boolean passes, List<String> reasons) {
    /** Both as lines of codes, those that fail now marked with {@link Act.Codes#NOW}. */
    static NewCodes of(String earlier, String later) {
        List<String> now = listed(later);
        List<String> known = listed(earlier).stream().map(NewCodes::bare).toList();
        List<String> fresh = now.stream().filter(c -> !known.contains(bare(c))).toList();
        List<String> failing = fresh.stream().filter(c -> c.endsWith(Act.Codes.NOW)).toList();
        List<String> reasons = new ArrayList<>();
        fresh.forEach(c -> reasons.add("new: " + c));
        now.stream()
                .filter(c -> !fresh.contains(c))
                .forEach(c -> reasons.add("there before: " + c));
        List<String> left = now.stream().map(NewCodes::bare).toList();
        known.stream().filter(c -> !left.contains(c)).forEach(c -> reasons.add("gone: " + c));
        return new NewCodes(said(fresh.size(), failing.size()), failing.isEmpty(), reasons);
    }

    private static String said(int fresh, int failing) {
        if (fresh == 0) {
            return "No code came since.";
        }
        if (failing == 0) {
            return "No code came since that fails now; " + fresh + " came meanwhile and passes.";
        }
        return failing == 1
                ? "1 code came since and fails now."
                : failing + " codes came since and fail now.";
    }

    private static String bare(String line) {
        return line.endsWith(Act.Codes.NOW)
                ? line.substring(0, line.length() - Act.Codes.NOW.length())
                : line;
    }

    private static List<String> listed(String lines) {
        return lines.lines().filter(l -> !l.isBlank()).toList();
    }
}
