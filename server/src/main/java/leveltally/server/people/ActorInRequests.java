package leveltally.server.people;

import jakarta.servlet.http.HttpServletRequest;
import java.time.Instant;
import java.util.List;
import leveltally.core.Refusal;
import leveltally.core.people.Actor;
import leveltally.core.people.PersonId;
import leveltally.server.frame.Settings;
import org.springdoc.core.utils.SpringDocUtils;
import org.springframework.context.annotation.Configuration;
import org.springframework.core.MethodParameter;
import org.springframework.security.core.context.SecurityContextHolder;
import org.springframework.web.bind.support.WebDataBinderFactory;
import org.springframework.web.context.request.NativeWebRequest;
import org.springframework.web.method.support.HandlerMethodArgumentResolver;
import org.springframework.web.method.support.ModelAndViewContainer;
import org.springframework.web.servlet.config.annotation.WebMvcConfigurer;

/** Turns the session into the {@link Actor} of a deed. */
@Configuration
class ActorInRequests implements WebMvcConfigurer {
    static {
        SpringDocUtils.getConfig().addRequestWrapperToIgnore(Actor.class);
    }

    private final People people;
    private final Settings settings;

    ActorInRequests(People people, Settings settings) {
        this.people = people;
        this.settings = settings;
    }

    @Override
    public void addArgumentResolvers(List<HandlerMethodArgumentResolver> resolvers) {
        resolvers.add(new ActorResolver());
    }

    private final class ActorResolver implements HandlerMethodArgumentResolver {
        @Override
        public boolean supportsParameter(MethodParameter parameter) {
            return parameter.getParameterType() == Actor.class;
        }

        @Override
        public Actor resolveArgument(
                MethodParameter parameter,
                ModelAndViewContainer container,
                NativeWebRequest request,
                WebDataBinderFactory binders) {
            var authentication = SecurityContextHolder.getContext().getAuthentication();
            long id = authentication == null || !authentication.getName().matches("\\d+")
                    ? 0
                    : Long.parseLong(authentication.getName());
            People.Person person = people.find(new PersonId(id))
                    .orElseThrow(() -> Refusal.notAllowed("disabled", "You can no longer sign in here."));
            String from = ((HttpServletRequest) request.getNativeRequest()).getRemoteAddr();
            return new Actor(person.id(), person.name(), person.roles(), settings.today(), Instant.now(), from);
        }
    }
}
