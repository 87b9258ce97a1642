import { PDFDocument, StandardFonts } from 'pdf-lib';
import sharp from 'sharp';
import type { FileId } from '#core/files/file.ts';
import { PICTURES, type PictureName } from './pictures.ts';

const DOCUMENTS = {
  prospectus: {
    name: 'Prospectus of the year course',
    pages: [
      ['Pellow Quay School of Boatbuilding', 'The year course', 'Forty weeks, from lofting to launch'],
      ['What you learn', 'Reading lines and lofting them full size', 'Steaming, scarfing and fastening planks'],
      ['What it costs', 'Teaching, timber, fastenings and the loan of every tool'],
    ],
  },
  form: { name: 'Application form', pages: [['Application form', 'Your name', 'What you have made with your hands']] },
  timetable: {
    name: 'Timetable of the ferry',
    pages: [['Timetable of the ferry', 'From May to September', '08:10   11:40   15:20   18:05']],
  },
} as const;
/** The sign of the school: a hull under its sails, for light grounds and for dark ones. */
const signed = (hull: string, sail: string, jib: string): string =>
  `<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 64 64" width="64" height="64"><path d="M4 40 Q32 52 60 40 Q56 58 40 58 H24 Q8 58 4 40z" fill="${hull}"/><path d="M30 4 V38 H10 Q24 26 30 4z" fill="${sail}"/><path d="M35 12 Q38 28 54 38 H35z" fill="${jib}"/></svg>`;
const SIGNS = {
  logo: { name: 'Sign of the school', svg: signed('#b4763b', '#0e6470', '#3f98a3') },
  pale: { name: 'Sign of the school, pale', svg: signed('#e0b07a', '#fffdf9', '#c9e3e6') },
};
type DocumentName = keyof typeof DOCUMENTS;

/** The id of a file of the demo, by the word that texts name it by. @throws where there is none */
export function demoFileId(word: string): FileId {
  if (!(word in SIGNS) && !(word in PICTURES) && !(word in DOCUMENTS))
    throw new Error(`The demo data has no file ‘${word}’.`);
  return `pellow${word}`.padEnd(16, '0') as FileId;
}

export interface DemoFile {
  readonly id: FileId;
  readonly name: string;
  /** Its name with an ending, as somebody would send it. */
  readonly sentAs: string;
  readonly alternative: string;
  readonly bytes: Uint8Array;
}

/** The files of the school: pictures that are drawn, and documents. They are the same each time. */
export async function demoFiles(): Promise<DemoFile[]> {
  const pictures = Object.keys(PICTURES).map(async (word): Promise<DemoFile> => {
    const { name, alternative, svg } = PICTURES[word as PictureName];
    const bytes = await sharp(Buffer.from(svg)).resize({ width: 1280 }).jpeg({ quality: 90 }).toBuffer();
    return { id: demoFileId(word), name, sentAs: `${name}.jpg`, alternative, bytes };
  });
  const documents = Object.keys(DOCUMENTS).map(async (word): Promise<DemoFile> => {
    const { name, pages } = DOCUMENTS[word as DocumentName];
    const bytes = await written(name, pages);
    return { id: demoFileId(word), name, sentAs: `${name}.pdf`, alternative: '', bytes };
  });
  const signs = Object.entries(SIGNS).map(([word, { name, svg }]): DemoFile => {
    const alternative = 'A hull under its sails';
    return { id: demoFileId(word), name, sentAs: `${name}.svg`, alternative, bytes: new TextEncoder().encode(svg) };
  });
  return Promise.all([...pictures, ...documents, ...signs]);
}

async function written(title: string, pages: readonly (readonly string[])[]): Promise<Uint8Array> {
  const document = await PDFDocument.create();
  const day = new Date('2026-09-01T09:00:00Z');
  document.setTitle(title);
  document.setCreationDate(day);
  document.setModificationDate(day);
  const [plain, bold] = [
    await document.embedFont(StandardFonts.Helvetica),
    await document.embedFont(StandardFonts.HelveticaBold),
  ];
  for (const [heading = '', ...lines] of pages) {
    const page = document.addPage([420, 595]);
    page.drawText(heading, { x: 36, y: 500, size: 20, font: bold });
    lines.forEach((line, at) => page.drawText(line, { x: 36, y: 460 - at * 26, size: 12, font: plain }));
  }
  return document.save({ useObjectStreams: false });
}
