import { Key } from 'selenium-webdriver';
import { describe, expect, it } from 'vitest';
import { signedIn } from './support/signed-in.ts';

const { spur, bench } = await signedIn();

/** What the text says, with a name for each block: `*bold*`, `_slanting_`, `[words](where)`, `/` for a break. */
const said = (): Promise<string[]> =>
  bench.driver.executeScript<string[]>(`
    const inline = (node) => {
      if (node.nodeType === Node.TEXT_NODE) return node.textContent;
      const words = [...node.childNodes].map(inline).join('');
      if (node.className?.includes?.('ProseMirror-')) return '';
      return { STRONG: '*' + words + '*', EM: '_' + words + '_', A: '[' + words + '](' + node.getAttribute('href') + ')', BR: '/', U: words, S: '~' + words + '~' }[node.tagName] ?? words;
    };
    const block = (node) => {
      const name = node.dataset.section ?? node.tagName.toLowerCase();
      const inner = [...node.children].filter((one) => /^(P|UL|OL|LI|TABLE|TBODY|TR|TH|TD|H[1-6]|BLOCKQUOTE|PRE|FIGURE|DIV)$/.test(one.tagName) && !one.className.includes?.('ProseMirror-'));
      if (name === 'p' || /^h\\d$/.test(name)) return name + ' ' + inline(node).replace(/\\s+/g, ' ').trim();
      return name === 'div' || name === 'tbody' ? inner.map(block).join(' ') : name + '(' + inner.map(block).join(', ') + ')';
    };
    return [...document.querySelector('.text-of-page').children].map(block);`);

/** A picture that comes along with what is pasted. */
const DOT =
  'data:image/png;base64,iVBORw0KGgoAAAANSUhEUgAAAAEAAAABCAYAAAAfFcSJAAAADUlEQVR42mNkYPhfDwAChwGA60e6kgAAAABJRU5ErkJggg==';

interface Source {
  readonly page: string;
  readonly html: string;
  readonly becomes: readonly string[];
  readonly says: readonly string[];
}

const SOURCES: Readonly<Record<string, Source>> = {
  'a word processor, which draws its lists': {
    page: 'Suppliers',
    html: `<html xmlns:o="urn:office"><head><style>p.Line {margin:0cm; font-family:"Serif",serif;}</style><!--[if gte mso 9]><xml>x</xml><![endif]--></head>
      <body lang="EN-GB"><!--StartFragment-->
      <h1 style="color:#2F5496">Before you come<o:p></o:p></h1>
      <p class="Line" style="margin-bottom:8pt"><span style="font-size:11.0pt;color:#C00000">Bring <b>boots</b> and <i>gloves</i>.</span><o:p>&nbsp;</o:p></p>
      <p style="text-indent:-18.0pt;mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">·<span style="font:7.0pt Serif">&nbsp;&nbsp; </span></span>An apron</p>
      <p style="text-indent:-18.0pt;mso-list:l0 level2 lfo1"><span style="mso-list:Ignore">o<span>&nbsp;</span></span>of canvas</p>
      <p style="text-indent:-18.0pt;mso-list:l0 level1 lfo1"><span style="mso-list:Ignore">·<span>&nbsp;</span></span>Something to eat</p>
      <h2>Then</h2>
      <p style="mso-list:l1 level1 lfo2"><span style="mso-list:Ignore">1.<span>&nbsp;</span></span>Ring the bell</p>
      <p style="mso-list:l1 level1 lfo2"><span style="mso-list:Ignore">2.<span>&nbsp;</span></span>Wait</p>
      <table border="1"><tr><td><p class="Line"><b>Day</b></p></td><td><p>Tide</p></td></tr><tr><td><p>Monday</p></td><td><p>06:12</p></td></tr></table>
      <p style="mso-hide:all">Hidden</p><!--EndFragment--></body></html>`,
    becomes: [
      'h2 Before you come',
      'p Bring *boots* and _gloves_.',
      'ul(li(p An apron, ul(li(p of canvas))), li(p Something to eat))',
      'h3 Then',
      'ol(li(p Ring the bell), li(p Wait))',
      'table(tr(th(p *Day*), th(p Tide)) tr(td(p Monday), td(p 06:12)))',
    ],
    says: ['Colours, fonts and sizes were left out.', 'The first row of the table was taken as its header.'],
  },
  'a document that is written in a browser': {
    page: 'Expenses',
    html: `<meta charset="utf-8"><b style="font-weight:normal;" id="page-7f3"><h2 dir="ltr"><span style="font-size:16pt;font-family:Sans;color:#000000">Tools</span></h2>
      <p dir="ltr"><span style="font-weight:700;font-style:normal">Ours</span><span style="font-weight:400"> are </span><span style="font-style:italic">lent</span><span>, see </span><a href="https://tides.example/list"><span style="color:#1155cc">the list</span></a><span>.</span></p>
      <ul><li dir="ltr" aria-level="1"><p dir="ltr" role="presentation"><span>Adze</span></p></li><li><p><span>Slick</span></p><ul><li><p><span>two inches</span></p></li></ul></li></ul>
      <br><p dir="ltr"><img src="${DOT}" alt="A slick" width="120" height="80"></p></b>`,
    becomes: [
      'h2 Tools',
      'p *Ours* are _lent_, see [the list](https://tides.example/list).',
      'ul(li(p Adze), li(p Slick, ul(li(p two inches))))',
      'picture',
    ],
    says: ['Colours, fonts and sizes were left out.'],
  },
  'an office program, with a file of its own for each picture': {
    page: 'Forms',
    html: `<html><head><title></title><meta name="generator" content="x"></head><body lang="en-GB" link="#000080">
      <h4 class="western">Paint</h4><p align="justify" style="line-height: 100%; margin-bottom: 0cm"><font color="#800000"><font face="Serif, serif"><font size="4">Two coats, <u>thin</u> ones, and <s>a third</s>.</font></font></font></p>
      <ol start="1"><li><p style="margin-bottom: 0cm">Sand</p></li><li><p>Dust</p></li></ol>
      <blockquote><p>Never in the sun.</p></blockquote>
      <p><img src="file:///tmp/picture-1.png" name="Image1" alt="A brush" width="200" height="90" border="0"></p>
      <table><caption>Drying</caption><thead><tr><th><p>Paint</p></th><th><p>Hours</p></th></tr></thead><tbody><tr><td><p>Primer</p></td><td><p>6</p></td></tr></tbody></table></body></html>`,
    becomes: [
      'h4 Paint',
      'p Two coats, thin ones, and ~a third~.',
      'ol(li(p Sand), li(p Dust))',
      'blockquote(p Never in the sun.)',
      'p (Picture: A brush)',
      'p Drying',
      'table(tr(th(p Paint), th(p Hours)) tr(td(p Primer), td(p 6)))',
    ],
    says: ['Colours, fonts and sizes were left out.', 'A picture was left out'],
  },
  'a mail': {
    page: 'Keys',
    html: `<div dir="auto" style="font-family:sans-serif">Dear Ines,<br><br>the ferry is late:<br>ring <a href="tel:+441632960001">us</a>.<br><br></div><div>Wren</div>
      <blockquote type="cite" style="border-left:2px solid blue"><div>When does it leave?</div></blockquote>
      <img src="https://count.example/open.gif" width="1" height="1" alt=""><div style="display:none">Preview of this mail</div>`,
    becomes: [
      'p Dear Ines,',
      'p the ferry is late:/ring [us](tel:+441632960001).',
      'p Wren',
      'blockquote(p When does it leave?)',
    ],
    says: ['Colours, fonts and sizes were left out.'],
  },
  'a page of another site': {
    page: 'Complaints',
    html: `<style>h1{color:red}</style><nav aria-hidden="true"><a href="/">Home</a></nav><h1>The slip</h1><p>See <a href="/boats?x=1">the boats</a>, <a href="#top">up</a> or <a href="https://quay.example/a">the quay</a>, by <code>07:10</code>.</p>
      <script>track()</script><dl><dt>Length</dt><dd>40 feet</dd></dl><h5>Small print</h5><pre><code>a
  b</code></pre><figure><picture><source srcset="a.avif"><img src="https://quay.example/slip.jpg" alt="The slip"></picture></figure><button>Share</button><form><input name="q"></form>`,
    becomes: [
      'h2 The slip',
      'p See the boats, up or [the quay](https://quay.example/a), by 07:10.',
      'p *Length*',
      'p 40 feet',
      'h4 Small print',
      'pre()',
      'p (Picture: The slip)',
    ],
    says: ['One link works only on the page that it came from', '2 fields and buttons were left out', 'A picture was'],
  },
};

describe('7: what is pasted into a text', () => {
  it.each(Object.entries(SOURCES))('from %s keeps what it says, and tells what was left out', async (_, source) => {
    await bench.open(spur, 'tern-sound', `?lens=write&find=${source.page}`);
    await bench.select(source.page);
    await (await bench.find('textbox', /^Text/)).click();
    await bench.chord(Key.CONTROL, 'a');
    await bench.driver.executeScript(
      `const data = new DataTransfer();
      data.setData('text/html', arguments[0]);
      data.setData('text/plain', 'plain');
      document.activeElement.dispatchEvent(new ClipboardEvent('paste', { clipboardData: data, bubbles: true, cancelable: true }));`,
      source.html,
    );
    for (const words of source.says) await bench.untilText(words);
    // An empty line may stand behind the last block, where writing goes on.
    const blocks = (await said()).filter((one, at, all) => one !== 'p' && !(one === 'p ' && at === all.length - 1));
    expect(blocks.map((one) => (/^(?:picture|figure\()/.test(one) ? 'picture' : one))).toEqual(source.becomes);
    await bench.untilNoText('Sending it to the library');
  });
});
