document.body.append('x')
