package leveltally.server.frame;

import java.lang.annotation.ElementType;
import java.lang.annotation.Retention;
import java.lang.annotation.RetentionPolicy;
import java.lang.annotation.Target;
import leveltally.core.people.Deed;

/**
 * The deed an endpoint is for. Whoever may not do it gets nothing but a refusal, before the request is read; an endpoint
 * that names none is refused to everybody. On a class it holds for its GET methods.
 */
@Retention(RetentionPolicy.RUNTIME)
@Target({ElementType.METHOD, ElementType.TYPE})
public @interface Needs {
    Deed value();
}
