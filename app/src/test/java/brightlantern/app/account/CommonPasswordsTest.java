package brightlantern.app.account;

import static org.assertj.core.api.Assertions.assertThat;

import org.junit.jupiter.params.ParameterizedTest;
import org.junit.jupiter.params.provider.ValueSource;

class CommonPasswordsTest {
    @ParameterizedTest
    @ValueSource(
            strings = {
                "password",
                "Password1!",
                "p@ssw0rd",
                "123sunshine99",
                "aaaaaaaa",
                "12345678",
                "hgfedcba",
                "ababababab",
                "the-tech-2026",
                "QWERTZ12"
            })
    void whatIsTriedFirstIsRefused(String password) {
        assertThat(CommonPasswords.why(password, "tech")).isPresent();
    }

    @ParameterizedTest
    @ValueSource(
            strings = {"lantern-demo", "three mossy kettles", "9fH2kq7Zr", "quite-another-one"})
    void lengthAloneIsEnoughForAllElse(String password) {
        assertThat(CommonPasswords.why(password, "tech")).isEmpty();
    }
}
