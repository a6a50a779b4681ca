package brightlantern.core.attachment;

/** What a file is, by its content. */
public enum FileKind {
    PICTURE("a picture"),
    FILM("a film"),
    SOUND("a sound"),
    PAPER("a PDF"),
    TEXT("text");

    private final String words;

    FileKind(String words) {
        this.words = words;
    }

    /** With its article. */
    public String words() {
        return words;
    }
}
