/**
 * What the law wants a vehicle to tell of its emission system, apart from the maker's own:
 * readiness, emission codes, permanent codes, monitor results (ISO 27145-3 over ISO 14229-1;
 * meanings of SAE J1979). Start with {@link brightlantern.core.emission.EmissionReport}.
 */
package brightlantern.core.emission;
