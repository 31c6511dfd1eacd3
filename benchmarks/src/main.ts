console.log('rows follow');
