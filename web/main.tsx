document.title = 'Tallow';
