// A style sheet, where nothing is drawn.
module.exports = {};
