// Styles have no part in tests.
export default {};
