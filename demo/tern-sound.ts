import { FIRST_LOOK, type Look } from '#core/model/look.ts';
import { type DemoNode, heading, outside, page } from './demo-tree.ts';

/** Signal colours and square corners, as on the ships. */
export const TERN_SOUND_LOOK: Look = {
  ...FIRST_LOOK,
  colour: '#12305a',
  accent: '#c4480c',
  pair: 'poster',
  scale: 'bold',
  weight: 'heavy',
  width: 'wide',
  corners: 'square',
  lines: 'strong',
  header: 'strong',
  footer: 'dark',
};

/** Tern Sound Ferry Office, an intranet: everything in it is invented. */
export const TERN_SOUND: readonly DemoNode[] = [
  page(
    'Tern Sound Ferry Office',
    { label: 'Today', description: 'What everybody on the boats and in the office needs today.' },
    'Wind, crossings and who is on duty. The board is changed at five in the morning and again at noon.',
  ),
  page(
    'Crossings',
    { description: 'Timetables, notices and what to do when it blows.' },
    'Four boats, three quays, one sound.',
    [
      page(
        'Summer timetable',
        { description: 'From May to September.' },
        'First boat at 6.10 from the mainland. The late boat runs on Fridays and Saturdays only.',
      ),
      page(
        'Winter timetable',
        { description: 'From October to April.' },
        'Every second crossing falls away; the school boat does not.',
      ),
      page(
        'When crossings stop',
        { description: 'Who decides, and who tells whom.' },
        'The master decides. The office writes the board, tells the radio, and then the school.',
      ),
      page('Special crossings', { description: 'Weddings, hearses, cattle.' }),
    ],
  ),
  page('Boats', { description: 'The four of them.' }, [
    page('Tern', { description: 'The big one.' }, 'Twelve cars or one and a half lorries.'),
    page('Sandpiper', { description: 'The fast one.' }),
    page('Turnstone', { description: 'The school boat.' }),
    page('Dunlin', { description: 'The spare.' }),
    page('Maintenance plan', { description: 'Slip, engine, paint.' }, [
      page('This month', {}),
      page('Next slip dates', {}),
      page('Spare parts', {}),
    ]),
  ]),
  page('People', { description: 'Rota, holidays, telephone list.' }, [
    page('Rota', { description: 'Who is on which boat.' }),
    page('Holidays', {}),
    page('Telephone list', {}),
    page(
      'New here',
      { description: 'Your first week.' },
      'Boots from the store, ticket from the office, coffee from anybody.',
    ),
  ]),
  heading('Rules', [
    page(
      'Safety drills',
      { description: 'First Monday of each month.' },
      'Lifejackets, fire, man overboard. Write the time into the log.',
    ),
    page('Dangerous goods', { description: 'What may come aboard.' }),
    page('Lost property', {}),
    page('Tickets and passes', {}),
    page('Complaints', {}),
  ]),
  page('Office', {}, [page('Forms', {}), page('Expenses', {}), page('Suppliers', {}), page('Keys', {})]),
  page('Archive', { hidden: 'branch', offMenus: true }, [
    page('Old timetables', {}),
    page('Minutes', {}),
    page('The old Tern', {}),
  ]),
  outside('Harbour weather', 'https://weather.tern-sound.example/'),
];
