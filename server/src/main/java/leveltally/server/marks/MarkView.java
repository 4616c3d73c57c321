package leveltally.server.marks;

import java.util.List;
import java.util.Map;
import leveltally.core.marks.Mark;
import leveltally.core.marks.MarkKind;
import org.jspecify.annotations.Nullable;

/** A mark as screens show it, with the clerk's answer where there is one. */
public record MarkView(
        String key,
        String kind,
        String words,
        String reason,
        List<FactView> facts,
        @Nullable String answer,
        @Nullable String answeredBy) {

    public static MarkView of(Mark mark, Map<String, MarkAnswers.Answer> answers) {
        return of(mark.key(), mark.kind(), mark.reason(), facts(mark), answers);
    }

    public static MarkView of(
            String key, MarkKind kind, String reason, List<FactView> facts, Map<String, MarkAnswers.Answer> answers) {
        MarkAnswers.Answer answer = answers.get(key);
        return new MarkView(
                key,
                kind.name(),
                kind.words(),
                reason,
                facts,
                answer == null ? null : answer.note(),
                answer == null ? null : answer.who());
    }

    public static List<FactView> facts(Mark mark) {
        return mark.facts().stream().map(FactView::of).toList();
    }
}
