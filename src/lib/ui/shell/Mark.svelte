<!-- The mark: a cupboard with its boxes. -->
<svg
	width="22"
	height="22"
	viewBox="0 0 22 22"
	fill="none"
	stroke="#e6cfa6"
	stroke-width="2"
	aria-hidden="true"
	><rect x="2" y="2" width="18" height="18" /><path d="M2 8h18M2 14h18M8 2v6M14 8v6M9 14v6" /></svg
>
