package brightlantern.core.take.csv;

import java.io.FilterInputStream;
import java.io.IOException;
import java.io.InputStream;

/** A stream that remembers the last byte, to tell a torn line from a last one. */
final class Remembering extends FilterInputStream {
    private int newest = '\n';

    Remembering(InputStream in) {
        super(in);
    }

    @Override
    public int read(byte[] bytes, int offset, int length) throws IOException {
        int n = super.read(bytes, offset, length);
        newest = n > 0 ? bytes[offset + n - 1] : newest;
        return n;
    }

    boolean endsWithLine() {
        return newest == '\n' || newest == '\r' || newest == 0;
    }
}
