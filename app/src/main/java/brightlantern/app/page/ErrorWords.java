package brightlantern.app.page;

import java.util.Map;
import org.slf4j.Logger;
import org.slf4j.LoggerFactory;
import org.springframework.beans.TypeMismatchException;
import org.springframework.boot.web.error.ErrorAttributeOptions;
import org.springframework.boot.webmvc.error.DefaultErrorAttributes;
import org.springframework.stereotype.Component;
import org.springframework.web.bind.MissingServletRequestParameterException;
import org.springframework.web.context.request.WebRequest;
import org.springframework.web.method.annotation.MethodArgumentTypeMismatchException;
import org.springframework.web.multipart.MaxUploadSizeExceededException;
import org.springframework.web.server.ResponseStatusException;
import org.springframework.web.servlet.resource.NoResourceFoundException;

/** What error pages say: only sentences that were written for people, never what a library said. */
@Component
class ErrorWords extends DefaultErrorAttributes {
    private static final Logger LOG = LoggerFactory.getLogger(ErrorWords.class);

    @Override
    public Map<String, Object> getErrorAttributes(
            WebRequest request, ErrorAttributeOptions options) {
        Map<String, Object> attributes = super.getErrorAttributes(request, options);
        Throwable error = getError(request);
        attributes.put("message", words(error, String.valueOf(attributes.get("path"))));
        if (error != null && Integer.valueOf(500).equals(attributes.get("status"))) {
            LOG.error("Error page for {}", attributes.get("path"), error);
        }
        return attributes;
    }

    private static String words(Throwable error, String path) {
        if (error instanceof ResponseStatusException told) {
            return told.getReason() == null ? "" : told.getReason();
        }
        if (error instanceof NoResourceFoundException) {
            return "Nothing is kept at " + path + ".";
        }
        if (error instanceof MissingServletRequestParameterException missing) {
            return "The field '" + missing.getParameterName() + "' is missing.";
        }
        if (error instanceof MethodArgumentTypeMismatchException wrong) {
            return "The field '"
                    + wrong.getName()
                    + "' cannot be '"
                    + wrong.getValue()
                    + "'"
                    + expected(wrong)
                    + ".";
        }
        if (error instanceof MaxUploadSizeExceededException) {
            return "The file is larger than this page takes.";
        }
        return "";
    }

    private static String expected(TypeMismatchException wrong) {
        Class<?> type = wrong.getRequiredType();
        if (type == null) {
            return "";
        }
        return Number.class.isAssignableFrom(type) || type.isPrimitive() && type != boolean.class
                ? "; expected a number"
                : type == boolean.class ? "; expected true or false" : "";
    }
}
