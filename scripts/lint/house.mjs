/** Lint of our own, for ESLint, which reads components, and for oxlint, which reads everything else. */

/** Days are reckoned in one room, which knows the zones and the clocks that change. */
const DAYS = {
	'Literal[value=86400000]': 'Spans of days are in core/time/spans.',
	"CallExpression[callee.property.name=/^(slice|substring|split)$/] > MemberExpression > CallExpression[callee.property.name='toISOString']":
		'The day of a moment is told by core/time/days, in a time zone.',
	'CallExpression[callee.property.name=/^(get|set)(UTC)?(Day|Date|Month|FullYear)$/][callee.object.type!="ThisExpression"]':
		'Days are reckoned in core/time.'
};

const ASK = 'Ask through the client, or fill an address with addressOf.';
/** The contract says where everything is; nobody else writes an address of the API. */
const ADDRESSES = {
	'Literal[value=/^.?api.v1/]': ASK,
	'TemplateElement[value.raw=/api.v1/]': ASK,
	'SvelteLiteral[value=/api.v1/]': ASK
};

const KINDS = {
	"CallExpression[callee.property.name=/^(startsWith|endsWith|includes|match|test)$/] MemberExpression[object.name=/^(n|event|notice)$/][property.name='kind']":
		'What an event concerns is told by the catalogue (core/events), not by its name.'
};

/** A rule that forbids what selectors of the syntax tree find, each with what it says. */
const forbids = (sentences) => ({
	create: (context) =>
		Object.fromEntries(
			Object.entries(sentences).map(([selector, message]) => [
				selector,
				(node) => context.report({ node, message })
			])
		)
});

export default {
	meta: { name: 'house' },
	rules: { days: forbids(DAYS), addresses: forbids(ADDRESSES), kinds: forbids(KINDS) }
};
