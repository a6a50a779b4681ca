package brightlantern.app.link;

import java.io.IOException;
import java.nio.file.Path;
import org.springframework.beans.factory.annotation.Value;
import org.springframework.boot.autoconfigure.condition.ConditionalOnMissingBean;
import org.springframework.context.annotation.Bean;
import org.springframework.context.annotation.Configuration;

/** Reads the kinds of vehicles, where the start has not brought them along. */
@Configuration
class KindsSetup {
    @Bean
    @ConditionalOnMissingBean
    VehicleKinds kinds(@Value("${lantern.vehicles}") String folder) throws IOException {
        return VehicleKinds.read(Path.of(folder));
    }
}
