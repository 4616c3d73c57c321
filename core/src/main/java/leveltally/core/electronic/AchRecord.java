package leveltally.core.electronic;

import java.io.IOException;
import java.io.OutputStream;
import java.util.Arrays;

/** One record of 94 characters while it is written; positions are counted from 1, as the rules count them. */
final class AchRecord {
    static final int LENGTH = 94;
    private static final byte[] END = {'\r', '\n'};

    private final byte[] line = new byte[LENGTH + END.length];

    /** Begins a record of this type; the rest of it is blank. */
    AchRecord begin(char type) {
        Arrays.fill(line, (byte) ' ');
        System.arraycopy(END, 0, line, LENGTH, END.length);
        line[0] = (byte) type;
        return this;
    }

    /** From the left; what is longer than its place is cut. */
    AchRecord text(int from, int to, String value) {
        int length = Math.min(value.length(), to - from + 1);
        for (int i = 0; i < length; i++) {
            line[from - 1 + i] = (byte) value.charAt(i);
        }
        return this;
    }

    /** Against the right, as a bank's number stands in a place of ten. */
    AchRecord atTheRight(int from, int to, String value) {
        return text(to - value.length() + 1, to, value);
    }

    /** @throws ArithmeticException when it has more digits than there is room for */
    AchRecord figure(int from, int to, long value) {
        long rest = value;
        for (int at = to - 1; at >= from - 1; at--) {
            line[at] = (byte) ('0' + rest % 10);
            rest /= 10;
        }
        if (rest != 0 || value < 0) {
            throw new ArithmeticException(value + " does not stand in positions " + from + " to " + to);
        }
        return this;
    }

    void writeTo(OutputStream out) throws IOException {
        out.write(line, 0, line.length);
    }
}
