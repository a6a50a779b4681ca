package brightlantern.app.page;

import java.io.IOException;
import org.springframework.core.io.ClassPathResource;
import org.springframework.http.HttpStatus;
import org.springframework.http.MediaType;
import org.springframework.http.ResponseEntity;
import org.springframework.stereotype.Controller;
import org.springframework.web.bind.annotation.GetMapping;
import org.springframework.web.bind.annotation.PathVariable;
import org.springframework.web.server.ResponseStatusException;

/** What the program's own files are made of (JSON Schema 2020-12). */
@Controller
class SchemaController {
    /**
     * @param kind cases, odometer, report or sweep
     */
    @GetMapping("/schemas/{kind:[a-z]+}")
    ResponseEntity<byte[]> schema(@PathVariable("kind") String kind) throws IOException {
        ClassPathResource schema = new ClassPathResource("schemas/" + kind + ".json");
        if (!schema.exists()) {
            throw new ResponseStatusException(
                    HttpStatus.NOT_FOUND,
                    "Expected cases, odometer, report or sweep, found '" + kind + "'.");
        }
        return ResponseEntity.ok()
                .contentType(MediaType.valueOf("application/schema+json"))
                .body(schema.getContentAsByteArray());
    }
}
