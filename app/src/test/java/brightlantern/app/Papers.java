package brightlantern.app;

import java.io.ByteArrayInputStream;
import java.io.IOException;
import java.util.List;
import org.apache.pdfbox.Loader;
import org.apache.pdfbox.pdmodel.PDDocument;
import org.apache.pdfbox.text.PDFTextStripper;
import org.verapdf.core.EncryptedPdfException;
import org.verapdf.core.ModelParsingException;
import org.verapdf.core.ValidationException;
import org.verapdf.gf.foundry.VeraGreenfieldFoundryProvider;
import org.verapdf.pdfa.Foundries;
import org.verapdf.pdfa.PDFAParser;
import org.verapdf.pdfa.flavours.PDFAFlavour;

/** What a PDF must be: tagged for those who do not look at it, its text in the order of reading. */
final class Papers {
    private Papers() {}

    /** What is wrong with it by PDF/UA-1 (ISO 14289-1), as far as a machine can tell. */
    static List<String> mistakes(byte[] pdf) {
        VeraGreenfieldFoundryProvider.initialise();
        PDFAFlavour flavour = PDFAFlavour.PDFUA_1;
        try (PDFAParser parser =
                Foundries.defaultInstance().createParser(new ByteArrayInputStream(pdf), flavour)) {
            return Foundries.defaultInstance()
                    .createValidator(flavour, false)
                    .validate(parser)
                    .getTestAssertions()
                    .stream()
                    .map(
                            a ->
                                    a.getRuleId().getClause()
                                            + ": "
                                            + a.getMessage()
                                            + " at "
                                            + a.getLocation().getContext())
                    .toList();
        } catch (IOException
                | ModelParsingException
                | EncryptedPdfException
                | ValidationException unreadable) {
            return List.of(unreadable.toString());
        }
    }

    /** Its text in the order in which it stands in the file, on one line. */
    static String text(byte[] pdf) throws IOException {
        try (PDDocument document = Loader.loadPDF(pdf)) {
            return new PDFTextStripper().getText(document).replaceAll("\\s+", " ");
        }
    }
}
