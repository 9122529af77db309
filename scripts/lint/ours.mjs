// Rules of this project that no linter brings: a day is asked of the clock.

/** Whether a call is `something.slice(…, 10)`, and what is sliced. */
function slicedAtTen(node) {
  const { callee, arguments: given } = node;
  return callee.type === 'MemberExpression' && callee.property.name === 'slice' && given[1]?.value === 10
    ? callee.object
    : undefined;
}

const rule = (message, applies) => ({
  meta: { type: 'problem', schema: [] },
  create: (context) => ({
    CallExpression(node) {
      if (applies(node)) context.report({ node, message });
    },
  }),
});

export default {
  meta: { name: 'glenfold' },
  rules: {
    // Cut out of a moment in UTC it is yesterday's or tomorrow's for half the world.
    'no-day-out-of-utc': rule(
      'Use dayOf of platform/clock or ui/today.',
      (node) => slicedAtTen(node)?.callee?.property?.name === 'toISOString',
    ),
    'no-day-out-of-a-moment': rule(
      'A moment is no day: use dayOf of ui/today.',
      (node) => slicedAtTen(node) !== undefined && node.arguments[0].value === 0,
    ),
  },
};
