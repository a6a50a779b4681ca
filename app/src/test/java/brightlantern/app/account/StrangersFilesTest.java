package brightlantern.app.account;

import static org.assertj.core.api.Assertions.assertThat;

import jakarta.servlet.ServletInputStream;
import java.util.List;
import org.junit.jupiter.api.AfterEach;
import org.junit.jupiter.api.Test;
import org.springframework.mock.web.MockFilterChain;
import org.springframework.mock.web.MockHttpServletRequest;
import org.springframework.mock.web.MockHttpServletResponse;
import org.springframework.security.authentication.UsernamePasswordAuthenticationToken;
import org.springframework.security.core.context.SecurityContextHolder;

/** What is sent before somebody signed in is not read. */
class StrangersFilesTest {
    private final StrangersFiles filter = new StrangersFiles();
    private final MockHttpServletResponse response = new MockHttpServletResponse();
    private final MockFilterChain chain = new MockFilterChain();

    @AfterEach
    void signOut() {
        SecurityContextHolder.clearContext();
    }

    private static MockHttpServletRequest sent(String type) {
        MockHttpServletRequest request =
                new MockHttpServletRequest("POST", "/jobs/1/watch/import") {
                    @Override
                    public ServletInputStream getInputStream() {
                        throw new AssertionError("it was read");
                    }
                };
        request.setContentType(type);
        return request;
    }

    @Test
    void aStrangersFileIsRefusedUnread() throws Exception {
        filter.doFilter(sent("Multipart/Form-Data; boundary=x"), response, chain);
        assertThat(chain.getRequest()).isNull();
        assertThat(response.getStatus()).isEqualTo(400);
        assertThat(response.getContentAsString()).startsWith("Sign in before you send a file");
    }

    @Test
    void formsAndFilesOfThoseWhoSignedInGoOn() throws Exception {
        filter.doFilter(sent("application/x-www-form-urlencoded"), response, chain);
        assertThat(chain.getRequest()).isNotNull();
        SecurityContextHolder.getContext()
                .setAuthentication(
                        UsernamePasswordAuthenticationToken.authenticated("tech", "", List.of()));
        MockFilterChain next = new MockFilterChain();
        filter.doFilter(sent("multipart/form-data; boundary=x"), response, next);
        assertThat(next.getRequest()).isNotNull();
    }
}
