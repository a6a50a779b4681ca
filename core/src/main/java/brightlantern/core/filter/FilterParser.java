package brightlantern.core.filter;

import brightlantern.core.filter.Filter.Operator;
import brightlantern.core.filter.Filter.Trend;
import brightlantern.core.signal.Signals;
import brightlantern.core.signal.Units;
import brightlantern.core.signal.Value;
import java.util.ArrayList;
import java.util.List;
import java.util.Locale;
import java.util.Map;
import java.util.Optional;

/**
 * Reads conditions as people write them. Grammar, weakest binding first:
 *
 * <pre>
 * or     = and { "or" and }
 * and    = not { "and" not }
 * not    = "not" not | held
 * held   = ( "(" or ")" | test ) [ "for" number "s" ]
 * test   = value ( sign number [ unit ] | "between" number "and" number [ unit ]
 *        | "is" state | "steady" | "rising" | "falling"
 *        | ( "rising" | "falling" ) "by" number [ unit ] "within" number "s" )
 * value  = id | last part of an id | "name in quotes"
 * sign   = &lt; | &lt;= | &gt; | &gt;= | = | !=
 * </pre>
 *
 * Without a unit a number is in the unit in which the value is shown. What moves needs a time; one
 * second where none is given.
 */
public final class FilterParser {
    private static final double MOVE_SECONDS = 1;

    /** Deeper nesting is a mistake, not a condition. */
    private static final int DEEPEST = 50;

    private final Signals signals;
    private final String text;
    private final List<Token> tokens = new ArrayList<>();
    private int at;
    private int depth;

    private FilterParser(String text, Signals signals) {
        this.text = text;
        this.signals = signals;
    }

    private enum Kind {
        WORD,
        NAME,
        NUMBER,
        SIGN,
        OPEN,
        CLOSE,
        END
    }

    private record Token(Kind kind, String text, int position) {}

    /**
     * @throws FilterException names what was expected and where
     */
    public static Filter parse(String text, Signals signals) throws FilterException {
        FilterParser parser = new FilterParser(text, signals);
        parser.split();
        Filter filter = parser.or();
        if (parser.peek().kind() != Kind.END) {
            throw parser.expected("'and', 'or' or the end");
        }
        return filter;
    }

    private void split() throws FilterException {
        int i = 0;
        while (i < text.length()) {
            char c = text.charAt(i);
            int start = i;
            if (Character.isWhitespace(c)) {
                i++;
                continue;
            }
            Kind kind;
            if (c == '(' || c == ')') {
                i++;
                kind = c == '(' ? Kind.OPEN : Kind.CLOSE;
            } else if (c == '"') {
                i = text.indexOf('"', i + 1) + 1;
                if (i == 0) {
                    throw new FilterException("the name is not closed with \"", start);
                }
                kind = Kind.NAME;
            } else if ("<>=!".indexOf(c) >= 0) {
                i += i + 1 < text.length() && text.charAt(i + 1) == '=' ? 2 : 1;
                kind = Kind.SIGN;
            } else if (startsNumber(i)) {
                i++;
                while (i < text.length() && (Character.isDigit(text.charAt(i)) || isPoint(i))) {
                    i++;
                }
                kind = Kind.NUMBER;
            } else {
                while (i < text.length() && " \t\n\r()\"<>=!".indexOf(text.charAt(i)) < 0) {
                    i++;
                }
                kind = Kind.WORD;
            }
            tokens.add(new Token(kind, text.substring(start, i), start));
        }
        tokens.add(new Token(Kind.END, "", text.length()));
    }

    private boolean startsNumber(int i) {
        char c = text.charAt(i);
        return Character.isDigit(c)
                || (c == '-' || c == '+')
                        && i + 1 < text.length()
                        && Character.isDigit(text.charAt(i + 1));
    }

    private boolean isPoint(int i) {
        return (text.charAt(i) == '.' || text.charAt(i) == ',')
                && i + 1 < text.length()
                && Character.isDigit(text.charAt(i + 1));
    }

    private Token peek() {
        return tokens.get(at);
    }

    private Token next() {
        return tokens.get(at++);
    }

    private boolean word(String wanted) {
        if (peek().kind() == Kind.WORD && peek().text().equalsIgnoreCase(wanted)) {
            at++;
            return true;
        }
        return false;
    }

    private FilterException expected(String what) {
        Token found = peek();
        return new FilterException(
                "expected "
                        + what
                        + (found.kind() == Kind.END
                                ? ", found the end"
                                : ", found '" + found.text() + "'"),
                found.position());
    }

    private Filter or() throws FilterException {
        List<Filter> parts = new ArrayList<>(List.of(and()));
        while (word("or")) {
            parts.add(and());
        }
        return parts.size() == 1 ? parts.get(0) : new Filter.Or(List.copyOf(parts));
    }

    private Filter and() throws FilterException {
        List<Filter> parts = new ArrayList<>(List.of(not()));
        while (word("and")) {
            parts.add(not());
        }
        return parts.size() == 1 ? parts.get(0) : new Filter.And(List.copyOf(parts));
    }

    private Filter not() throws FilterException {
        if (++depth > DEEPEST) {
            throw new FilterException(
                    "more than " + DEEPEST + " levels are not a condition", peek().position());
        }
        try {
            return word("not") ? new Filter.Not(not()) : held();
        } finally {
            depth--;
        }
    }

    private Filter held() throws FilterException {
        Filter part;
        if (peek().kind() == Kind.OPEN) {
            at++;
            part = or();
            if (peek().kind() != Kind.CLOSE) {
                throw expected("')'");
            }
            at++;
        } else {
            part = test();
        }
        if (!word("for")) {
            return part;
        }
        double seconds = seconds();
        return part instanceof Filter.Moves moves
                ? new Filter.Moves(moves.value(), moves.trend(), seconds, moves.resolution())
                : new Filter.For(part, seconds);
    }

    private Filter test() throws FilterException {
        Value value = value();
        for (Trend trend : Trend.values()) {
            if (word(trend.name().toLowerCase(Locale.ROOT))) {
                if (trend != Trend.STEADY && word("by")) {
                    return changed(value, trend);
                }
                return new Filter.Moves(
                        value.id(),
                        trend,
                        MOVE_SECONDS,
                        value.isState() ? 0 : Math.abs(value.scale()));
            }
        }
        if (word("is")) {
            return new Filter.Compare(value.id(), Operator.EQUAL, state(value));
        }
        if (word("between")) {
            double low = number("a number");
            if (!word("and")) {
                throw expected("'and' and the upper limit");
            }
            double high = number("a number");
            Optional<Token> unit = unit();
            return new Filter.And(
                    List.of(
                            new Filter.Compare(
                                    value.id(), Operator.MORE_OR_EQUAL, own(value, low, unit)),
                            new Filter.Compare(
                                    value.id(), Operator.LESS_OR_EQUAL, own(value, high, unit))));
        }
        if (peek().kind() != Kind.SIGN) {
            throw expected("a sign such as >, 'between', 'is', 'steady', 'rising' or 'falling'");
        }
        Operator operator = operator();
        if (value.isState() && peek().kind() == Kind.WORD) {
            return new Filter.Compare(value.id(), operator, state(value));
        }
        double limit = number("a number");
        return new Filter.Compare(value.id(), operator, own(value, limit, unit()));
    }

    private Filter changed(Value value, Trend trend) throws FilterException {
        int place = peek().position();
        double by = number("how much it changes");
        Optional<Token> unit = unit();
        // a difference: 10 °C are 10 K, and 0 °C are nothing
        double own = own(value, by, unit) - own(value, 0, unit);
        if (!(own > 0)) {
            throw new FilterException("a change must be more than nothing", place);
        }
        if (!word("within")) {
            throw expected("'within' and a number of seconds");
        }
        double seconds = seconds();
        return new Filter.Changed(value.id(), trend, own, seconds);
    }

    private double seconds() throws FilterException {
        double seconds = number("a number of seconds");
        if (seconds <= 0) {
            throw new FilterException(
                    "a time must be more than nothing", tokens.get(at - 1).position());
        }
        if (!word("s")) {
            throw expected("'s', for seconds");
        }
        return seconds;
    }

    private Operator operator() throws FilterException {
        for (Operator operator : Operator.values()) {
            if (operator.sign().equals(peek().text())) {
                at++;
                return operator;
            }
        }
        throw expected("one of <, <=, >, >=, =, !=");
    }

    private Value value() throws FilterException {
        Token token = peek();
        if (token.kind() != Kind.WORD && token.kind() != Kind.NAME) {
            throw expected("a value");
        }
        at++;
        String wanted = token.text().replace("\"", "").toLowerCase(Locale.ROOT);
        List<Value> exact =
                signals.values().stream()
                        .filter(
                                v ->
                                        v.id().equals(wanted)
                                                || v.name().toLowerCase(Locale.ROOT).equals(wanted))
                        .toList();
        List<Value> found =
                !exact.isEmpty()
                        ? exact
                        : signals.values().stream()
                                .filter(v -> v.id().endsWith("." + wanted))
                                .toList();
        if (found.size() == 1) {
            return found.get(0);
        }
        throw new FilterException(
                found.isEmpty()
                        ? "expected a value of this vehicle, found " + token.text()
                        : token.text()
                                + " may be "
                                + String.join(" or ", found.stream().map(Value::id).toList()),
                token.position());
    }

    private double number(String what) throws FilterException {
        if (peek().kind() != Kind.NUMBER) {
            throw expected(what);
        }
        Token token = next();
        try {
            return Double.parseDouble(token.text().replace(',', '.'));
        } catch (NumberFormatException twoPoints) {
            throw new FilterException(
                    "expected a number, found '" + token.text() + "'", token.position());
        }
    }

    /** A word behind a number that is no part of the grammar is its unit. */
    private Optional<Token> unit() {
        Token token = peek();
        boolean grammar =
                List.of("and", "or", "for", "within")
                        .contains(token.text().toLowerCase(Locale.ROOT));
        return token.kind() == Kind.WORD && !grammar ? Optional.of(next()) : Optional.empty();
    }

    /** A limit in the value's own unit. */
    private static double own(Value value, double limit, Optional<Token> unit)
            throws FilterException {
        String from = unit.map(Token::text).orElse(value.show());
        if (value.isState()) {
            return limit;
        }
        try {
            return Units.convert(limit, from, value.unit());
        } catch (IllegalArgumentException other) {
            throw new FilterException(
                    "%s is measured in %s, not in %s"
                            .formatted(
                                    value.name(),
                                    value.unit().isEmpty() ? "a bare number" : value.unit(),
                                    from),
                    unit.map(Token::position).orElse(0));
        }
    }

    private double state(Value value) throws FilterException {
        Token token = peek();
        if (!value.isState()) {
            throw new FilterException(
                    value.name() + " is a number; compare it with a sign", token.position());
        }
        String wanted = token.text().replace("\"", "");
        for (Map.Entry<Integer, String> state : value.states().entrySet()) {
            if (state.getValue().equalsIgnoreCase(wanted)) {
                at++;
                return state.getKey();
            }
        }
        throw expected("one of " + String.join(", ", value.states().values()));
    }
}
