package leveltally.core.bankfiles;

import java.util.List;
import java.util.Optional;
import leveltally.core.Refusal;

/**
 * What a bank says of a file it was given.
 *
 * @param name under which it was given; empty where the answer does not say
 * @param serial of the file, where the answer says it
 * @param note why it was refused, or whatever else the bank says
 * @param refused checks the bank does not take of a file it took
 */
public record FileAnswer(String name, Optional<Long> serial, boolean taken, String note, List<RefusedCheck> refused) {
    private static final String TAKEN = "TAKEN";
    private static final String REFUSED = "REFUSED";

    public FileAnswer {
        refused = List.copyOf(refused);
    }

    /** A check as the bank calls it, and what is wrong with it. */
    public record RefusedCheck(String number, String why) {}

    /**
     * Takes what was read by a layout as the bank's answer; where it says nothing of the whole, the file was taken.
     *
     * @throws Refusal when a value does not read, or the answer is neither TAKEN nor REFUSED
     */
    public static FileAnswer of(RecordReader.Read read) {
        read.findings().stream().findFirst().ifPresent(first -> {
            throw unreadable("Line " + first.line() + ", field " + first.field() + ": " + first.sentence());
        });
        RecordReader.Values file = read.file();
        String answer = file.text(Source.FILE_ANSWER).orElse(TAKEN);
        if (!answer.equals(TAKEN) && !answer.equals(REFUSED)) {
            throw unreadable("It says “" + answer
                    + "” of the file, which is neither TAKEN nor REFUSED. Say in the layout" + " what it stands for.");
        }
        return new FileAnswer(
                file.text(Source.FILE_NAME).orElse(""),
                file.figure(Source.FILE_SERIAL),
                answer.equals(TAKEN),
                file.text(Source.FILE_NOTE).orElse(""),
                read.events().stream()
                        .map(RecordReader.Event::values)
                        .filter(one -> !one.text(Source.KIND).equals(Optional.of(TAKEN)))
                        .map(one -> new RefusedCheck(
                                one.text(Source.NUMBER_AS_PRINTED)
                                        .or(() -> one.figure(Source.NUMBER).map(String::valueOf))
                                        // banks write zeros before a number
                                        .map(number -> number.replaceFirst("^0+(?=\\d+$)", ""))
                                        .orElse(""),
                                one.text(Source.TEXT).orElse("the bank does not say why")))
                        .toList());
    }

    private static Refusal unreadable(String why) {
        return Refusal.invalidField("answer-unreadable", "file", "Nothing was read of this answer. " + why);
    }
}
