package leveltally.server.batches;

import leveltally.core.selection.Paying;
import leveltally.server.selection.DueQuestion;
import org.springframework.stereotype.Component;
import tools.jackson.databind.json.JsonMapper;

/** The criteria a batch was made from, as they are kept with it. */
@Component
class KeptQuestion {
    private final JsonMapper json;

    KeptQuestion(JsonMapper json) {
        this.json = json;
    }

    /** @throws IllegalArgumentException when it was made from none */
    DueQuestion of(BatchEntity batch) {
        if (batch.question == null) {
            throw new IllegalArgumentException("batch " + batch.id + " was made from no criteria");
        }
        return json.readValue(batch.question, DueQuestion.class);
    }

    String kept(DueQuestion question) {
        return json.writeValueAsString(question);
    }

    Paying.Grouping grouping(BatchEntity batch) {
        Paying.Grouping asked = batch.question == null ? null : of(batch).grouping();
        return asked == null ? Paying.Grouping.PAYEE : asked;
    }
}
